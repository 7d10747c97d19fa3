/** The desk keeps what it has worked out: what it says is what it would say anew. */
import { eq, gt } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { slackOf, termsToPlan } from '#core/route'
import { isoDate, dayNumber } from '#core/time'
import * as t from '#server/db/schema/index'
import { deskReadings } from '#server/features/advising/deskReadings'
import { dropDeskView, keepDeskView } from '#server/features/advising/deskViews'
import { readDesk } from '#server/features/advising/desk'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { changeRoute } from '#server/features/route/route'
import { readRoutes } from '#server/features/route/routes'
import { rowsOf } from '#shared/advising/desk'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import { routeFigures } from '#shared/degree/figures'
import { readStudent } from '#shared/reading'
import type { StudentRecord } from '#shared/record/responses'
import { at, demoWorld, idOf, OPENS, person, setTime, within, type World } from './world'

let world: World
let imke: Who & { id: number }
let orla: Who & { id: number }
let record: StudentRecord
beforeAll(async () => {
  world = await demoWorld('desk')
  imke = await person(world.db, 'Imke Varga')
  orla = await person(world.db, 'Orla Denholt')
  record = (await readStudentRecords(world.db, [idOf(imke)], 'programAdvisor'))[0]!
})
afterAll(() => world.close())

/** What it says, against a reading of its own. */
const deskReading = async (record: StudentRecord, catalogContext: CatalogContext, now: number) =>
  (await deskReadings(world.db, [record], catalogContext, now))[0]!
async function isAsRead(
  studentRecord: StudentRecord,
  catalogContext: CatalogContext,
  now: number
): Promise<void> {
  const { today, standings, climb, figures, late, tight } = await deskReading(
    studentRecord,
    catalogContext,
    now
  )
  const anew = readStudent(studentRecord, catalogContext, now)
  const next = termsToPlan(anew.context)
    .slice(0, 3)
    .map((one) => one.code)
  const stays = slackOf(anew.context).filter(({ term, latest }) => (latest ?? term).code === term.code)
  expect(tight).toEqual(
    stays.flatMap(({ course, term }) => (next.includes(term.code) ? [{ course, term: term.code }] : []))
  )
  expect({ today, standings, climb, figures, late }).toEqual({
    today: anew.today,
    standings: anew.standings,
    climb: anew.climb,
    figures: routeFigures(anew),
    late: anew.findings.some((one) => one.code === 'late' || one.code === 'needLeft')
  })
}

describe('what the desk keeps of a record', () => {
  it('is the same as long as nothing that is read has changed, seats and what is looked at included', async () => {
    const { now } = await at(world)
    const first = await deskReading(record, world.catalogContext, now)
    const sections = record.sections.map((one) => ({ ...one, taken: one.taken + 3, waiting: 7 }))
    const route = { ...record.route, seen: { by: 'Orla Denholt', at: now, version: 1 } }
    expect(await deskReading({ ...record, sections, route }, world.catalogContext, now + 60_000)).toBe(first)
    await isAsRead({ ...record, sections, route }, world.catalogContext, now + 60_000)
  })

  it('is worked out anew for everything else that is read', async () => {
    const { now } = await at(world)
    const { route, programs, held, keepFree } = record
    const changed: StudentRecord[] = [
      { ...record, route: { ...route, courses: route.courses.slice(1) } },
      { ...record, programs: programs.slice(0, 1) },
      { ...record, record: record.record.slice(1) },
      { ...record, held: held.slice(1) },
      { ...record, drafts: [] },
      { ...record, carry: { ...record.carry, credits: 9 } },
      {
        ...record,
        requests: [
          {
            ...{ id: 1, kind: 'waiver', course: route.courses[0]!.course, state: 'given' },
            ...{ section: null, program: null, need: null, reason: '', askedAt: 0 },
            ...{ waitsFor: 'programAdvisor', handedOn: [], answer: null }
          }
        ]
      },
      {
        ...record,
        keepFree: [...keepFree, { name: 'work', days: [1, 2, 3, 4, 5], start: 0, end: 1200, hard: true }]
      },
      { ...record, openings: record.openings.map((one) => ({ ...one, opens: now - 1 })) }
    ]
    const before = await deskReading(record, world.catalogContext, now)
    for (const one of changed) {
      expect(await deskReading(one, world.catalogContext, now)).not.toBe(before)
      await isAsRead(one, world.catalogContext, now)
    }
  })

  it('follows the day, the deadlines and the openings', async () => {
    for (const term of world.catalogContext.terms.slice(-4))
      for (const moment of [term.addEndsAt - 1, term.addEndsAt, term.dropEndsAt, OPENS - 1, OPENS]) {
        await isAsRead(record, world.catalogContext, moment)
        await isAsRead(record, world.catalogContext, moment + 86_400_000)
      }
  })

  it('follows the catalog and what is on offer', async () => {
    const { now } = await at(world)
    await isAsRead(record, world.catalogContext, now)
    const later = world.catalogContext.terms.map((one) => ({
      ...one,
      loadMost: 9,
      end: isoDate(dayNumber(one.end) + 1)
    }))
    await isAsRead(record, { ...world.catalogContext, terms: later }, now)
    await isAsRead(record, { ...world.catalogContext, offers: new Map() }, now)
    await isAsRead(record, { ...world.catalogContext, running: new Map() }, now)
  })
})

describe('what the desk keeps in the database', () => {
  it('is what another server reads, as long as it is of the same state', async () => {
    const { now } = await at(world)
    const first = await deskReading(record, world.catalogContext, now)
    vi.resetModules()
    const other = await import('#server/features/advising/deskReadings')
    const said = async () => (await other.deskReadings(world.db, [record], world.catalogContext, now))[0]!
    expect(await said()).toEqual(first)
    const { id } = record.student
    const stored = async () => {
      const [row] = await world.db.select().from(t.deskReading).where(eq(t.deskReading.studentId, id))
      return row!
    }
    // Taken from there: a word that only stands in the row is said.
    const { reading } = await stored()
    const told = reading.replace(`"late":${first.late}`, `"late":${!first.late}`)
    await world.db.update(t.deskReading).set({ reading: told }).where(eq(t.deskReading.studentId, id))
    vi.resetModules()
    const third = await import('#server/features/advising/deskReadings')
    const [again] = await third.deskReadings(world.db, [record], world.catalogContext, now)
    expect(again!.late).toBe(!first.late)
    const [changed] = await third.deskReadings(
      world.db,
      [{ ...record, drafts: [] }],
      world.catalogContext,
      now
    )
    expect(changed!.late).toBe(first.late)
    expect((await stored()).reading).toContain(`"late":${first.late}`)
  })
})

describe('reading ahead', () => {
  it('takes everybody at first and when the day has changed, else whoever has', async () => {
    await world.db.delete(t.deskReading)
    // Enough of them to be a crowd; each is an audit.
    await world.db.delete(t.advising).where(gt(t.advising.studentId, 40))
    vi.resetModules()
    const fresh = await import('#server/features/advising/readAhead')
    let most = 60_000
    const ahead = new fresh.ReadingAhead(() => most)
    const stored = () => world.db.$count(t.deskReading)
    await ahead.turn(world.db, world.catalogContext)
    expect(await stored()).toBe(0)
    const everybody = ahead.waiting
    expect(everybody).toBe(
      (await world.db.selectDistinct({ id: t.advising.studentId }).from(t.advising)).length
    )
    await ahead.turn(world.db, world.catalogContext)
    expect(ahead.waiting).toBe(0)
    expect(await stored()).toBe(everybody)

    most = 0
    const { now } = await at(world)
    const log = (student: number | null, action: string) =>
      world.db.insert(t.eventLog).values({ at: new Date(now), studentId: student, action })
    await ahead.turn(world.db, world.catalogContext)
    expect(ahead.waiting).toBe(0)
    await log(idOf(imke), 'route.changed')
    await log(idOf(imke), 'week.picked')
    await log(2, 'record.read')
    await log(null, 'desk.read')
    await ahead.turn(world.db, world.catalogContext)
    expect(ahead.waiting).toBe(1)
    await setTime(world, now + 86_400_000)
    await ahead.turn(world.db, world.catalogContext)
    expect(ahead.waiting).toBe(everybody)
    await setTime(world, now)
  })
})

describe('the desk', () => {
  it('tells of a change of a route the next time it is asked', async () => {
    const { now, zone } = await at(world)
    const row = async () =>
      (await readDesk(world.db, orla, world.catalogContext, now)).rows.find((one) => one.id === idOf(imke))!
    const before = await row()
    expect(await row()).toEqual(before)
    const route = (await readRoutes(world.db, idOf(imke))).find((one) => one.chosen)!
    const planned = route.courses.find((one) => one.course === 'ENDA 410')!
    await within(world, (tx) =>
      changeRoute(
        tx,
        { who: imke, student: idOf(imke), now, zone },
        { route: route.id, version: route.version, change: { kind: 'remove', planned } }
      )
    )
    const after = await row()
    expect(after.findings).toBe(before.findings - 1)
    expect(after.needed).toBe(before.needed + 4)
  })
})

describe('views of the desk', () => {
  const view = { reason: 'soon' as const, program: null, standing: 'senior' as const }
  it('are kept by a name for whoever keeps them, and for nobody else', async () => {
    const { now } = await at(world)
    const casimir = await person(world.db, 'Casimir Boyle')
    const views = async (who: Who) => (await readDesk(world.db, who, world.catalogContext, now)).views
    await keepDeskView(world.db, orla.id, { name: 'Seniors', ...view })
    await keepDeskView(world.db, orla.id, { name: 'Seniors', ...view, standing: 'junior' })
    expect(await views(orla)).toMatchObject([{ name: 'Seniors', reason: 'soon', standing: 'junior' }])
    expect(await views(casimir)).toEqual([])
    const [mine] = await views(orla)
    await expect(dropDeskView(world.db, casimir.id, mine!.id)).rejects.toMatchObject({ code: 'noView' })
    await dropDeskView(world.db, orla.id, mine!.id)
    expect(await views(orla)).toEqual([])
  })
  it('show who has the reason, the program and the standing', async () => {
    const { now } = await at(world)
    const { rows } = await readDesk(world.db, orla, world.catalogContext, now)
    const nothing = { reason: null, program: null, standing: null }
    expect(rowsOf({ ...nothing, standing: 'junior' }, rows, now)).toEqual(
      rows.filter((row) => row.standing === 'junior')
    )
    const [first] = rows
    expect(rowsOf({ ...nothing, program: first!.programs }, rows, now)).toContain(first)
    expect(rowsOf({ ...nothing, program: 'of nobody' }, rows, now)).toEqual([])
    const asked = rowsOf({ ...nothing, reason: 'asked' }, rows, now)
    expect(asked).toEqual(rows.filter((row) => row.reviews.length > 0))
    expect(asked.length).toBeGreaterThan(0)
  })
})
