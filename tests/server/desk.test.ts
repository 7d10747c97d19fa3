/** The desk keeps what it has worked out: what it says is what it would say anew. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { isoDate, dayNumber } from '#core/time'
import { deskReading } from '#server/features/advising/deskReadings'
import { readDesk } from '#server/features/advising/desk'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { changeRoute } from '#server/features/route/route'
import { readRoutes } from '#server/features/route/routes'
import type { Who } from '#shared/accounts/responses'
import type { Shelf } from '#shared/catalog/shelf'
import { routeFigures } from '#shared/degree/figures'
import { readStudent } from '#shared/reading'
import type { StudentRecord } from '#shared/record/responses'
import { at, demoWorld, idOf, OPENS, person, within, type World } from './world'

let world: World
let imke: Who
let orla: Who
let record: StudentRecord
beforeAll(async () => {
  world = await demoWorld('desk')
  imke = await person(world.db, 'Imke Varga')
  orla = await person(world.db, 'Orla Denholt')
  record = (await readStudentRecords(world.db, [idOf(imke)], 'programAdvisor'))[0]!
})
afterAll(() => world.close())

/** What it says, against a reading of its own. */
function isAsRead(picture: StudentRecord, shelf: Shelf, now: number): void {
  const { today, standings, climb, figures, late } = deskReading(picture, shelf, now)
  const anew = readStudent(picture, shelf, now)
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
    const first = deskReading(record, world.shelf, now)
    const sections = record.sections.map((one) => ({ ...one, taken: one.taken + 3, waiting: 7 }))
    const route = { ...record.route, seen: { by: 'Orla Denholt', at: now, version: 1 } }
    expect(deskReading({ ...record, sections, route }, world.shelf, now + 60_000)).toBe(first)
    isAsRead({ ...record, sections, route }, world.shelf, now + 60_000)
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
    const before = deskReading(record, world.shelf, now)
    for (const one of changed) {
      expect(deskReading(one, world.shelf, now)).not.toBe(before)
      isAsRead(one, world.shelf, now)
    }
  })

  it('follows the day, the deadlines and the openings', () => {
    for (const term of world.shelf.terms.slice(-4))
      for (const moment of [term.addEndsAt - 1, term.addEndsAt, term.dropEndsAt, OPENS - 1, OPENS]) {
        isAsRead(record, world.shelf, moment)
        isAsRead(record, world.shelf, moment + 86_400_000)
      }
  })

  it('follows the catalog and what is on offer', async () => {
    const { now } = await at(world)
    isAsRead(record, world.shelf, now)
    const later = world.shelf.terms.map((one) => ({
      ...one,
      loadMost: 9,
      end: isoDate(dayNumber(one.end) + 1)
    }))
    isAsRead(record, { ...world.shelf, terms: later }, now)
    isAsRead(record, { ...world.shelf, offers: new Map() }, now)
    isAsRead(record, { ...world.shelf, running: new Map() }, now)
  })
})

describe('the desk', () => {
  it('tells of a change of a route the next time it is asked', async () => {
    const { now, zone } = await at(world)
    const row = async () =>
      (await readDesk(world.db, orla, world.shelf, now)).rows.find((one) => one.id === idOf(imke))!
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
