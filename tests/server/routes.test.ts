/** Routes of a student: changes, undo, versions, several of them, what can be carried. */
import { desc, eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { RouteChange } from '#core/findings'
import { courseCode, termCode } from '#core/ids'
import type { Who } from '#shared/accounts/responses'
import { readStudent } from '#shared/reading'
import * as t from '#server/db/schema/index'
import { writeCarry } from '#server/features/route/load'
import { changeRoute, returnTo, stepRoute, type ActorContext } from '#server/features/route/route'
import {
  chooseRoute,
  describeRoute,
  dropRoute,
  makeRoute,
  markSeen,
  readRoutes,
  readVersions
} from '#server/features/route/routes'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { at, demoWorld, idOf, person, within, type World } from './world'

let world: World
let imke: Who
let bram: Who
let orla: Who
beforeAll(async () => {
  world = await demoWorld('routes')
  const names = ['Imke Varga', 'Bram Ostrander', 'Orla Denholt']
  ;[imke, bram, orla] = (await Promise.all(names.map((n) => person(world.db, n)))) as [Who, Who, Who]
})
afterAll(() => world.close())

const planned = (course: string, term: string, credits = 3) => ({
  course: courseCode(course),
  term: termCode(term),
  credits,
  note: null,
  locked: false
})

const by = async (who: Who, student = idOf(who)): Promise<ActorContext> => ({
  who,
  student,
  ...(await at(world))
})
async function change(who: Who, version: number, body: RouteChange, route: number | null = null) {
  const when = await by(who)
  return within(world, (tx) => changeRoute(tx, when, { route, version, change: body }))
}
async function step(who: Who, version: number, which: 'undo' | 'redo', route: number | null = null) {
  const when = await by(who)
  return within(world, (tx) => stepRoute(tx, when, { route, version, step: which }))
}
const routesOf = (who: Who) => readRoutes(world.db, idOf(who))
const routeOf = async (who: Who) => (await routesOf(who))[0]!
const codesOf = async (who: Who) => (await routeOf(who)).courses.map((c) => `${c.course} ${c.term}`)

describe('the route', () => {
  it('takes a change and counts a version up', async () => {
    const before = await routeOf(imke)
    const { version } = await change(imke, before.version, {
      kind: 'add',
      planned: planned('STAT 330', 'SP28', 4)
    })
    const after = await routeOf(imke)
    expect(version).toBe(before.version + 1)
    expect(after).toMatchObject({ version, changedBy: 'Imke Varga' })
    expect(after.courses.map((c) => c.course)).toContain('STAT 330')
  })
  it('refuses a change made from an older version, and keeps what is there', async () => {
    const { version } = await routeOf(imke)
    const stale = change(imke, version - 1, { kind: 'add', planned: planned('HERI 320', 'SP28') })
    await expect(stale).rejects.toMatchObject({ status: 409, code: 'routeMovedOn' })
    expect((await routeOf(imke)).version).toBe(version)
  })
  it('writes in no past and no running term', async () => {
    const { version, courses } = await routeOf(imke)
    for (const term of ['AU26', 'SP27']) {
      const add = change(imke, version, { kind: 'add', planned: planned('HERI 320', term) })
      await expect(add).rejects.toMatchObject({ status: 422, code: 'termClosed' })
    }
    const first = courses[0]!
    const back = change(imke, version, {
      kind: 'move',
      course: first.course,
      from: first.term,
      to: termCode('SP27')
    })
    await expect(back).rejects.toMatchObject({ code: 'termClosed' })
  })
  it('names an unknown course and wrong credits', async () => {
    const { version } = await routeOf(imke)
    await expect(
      change(imke, version, { kind: 'add', planned: planned('ENVI 999', 'SP28') })
    ).rejects.toMatchObject({ code: 'noCourse' })
    await expect(
      change(imke, version, { kind: 'add', planned: planned('HERI 320', 'SP28', 9) })
    ).rejects.toMatchObject({
      code: 'credits',
      fields: [{ field: 'change.planned.credits' }]
    })
  })
  it('moves and removes, and keeps the log of it', async () => {
    let { version } = await routeOf(imke)
    ;({ version } = await change(imke, version, {
      kind: 'move',
      course: courseCode('STAT 330'),
      from: termCode('SP28'),
      to: termCode('SP29')
    }))
    await change(imke, version, { kind: 'remove', planned: planned('STAT 330', 'SP29', 4) })
    expect((await routeOf(imke)).courses.map((c) => c.course)).not.toContain('STAT 330')
    const [event] = await world.db.select().from(t.eventLog).orderBy(desc(t.eventLog.id)).limit(1)
    expect(event).toMatchObject({
      action: 'route.changed',
      accountId: imke.id,
      studentId: idOf(imke),
      after: { change: { kind: 'remove' } }
    })
  })
})

describe('undo and redo', () => {
  it('take back the last changes one by one, notes and locks included, and make them again', async () => {
    const { version, courses } = await routeOf(imke)
    const first = courses[0]!
    const detail = { credits: first.credits, note: first.note, locked: first.locked }
    const noted = await change(imke, version, {
      kind: 'edit',
      course: first.course,
      term: first.term,
      from: detail,
      to: { ...detail, note: 'ask about the lab', locked: true }
    })
    const gone = await change(imke, noted.version, {
      kind: 'remove',
      planned: planned(first.course, first.term)
    })
    expect(gone.undo).toMatchObject({ kind: 'remove', planned: { note: 'ask about the lab', locked: true } })
    const back = await step(imke, gone.version, 'undo')
    expect((await routeOf(imke)).courses).toContainEqual({
      ...first,
      note: 'ask about the lab',
      locked: true
    })
    expect(back).toMatchObject({ undo: { kind: 'edit' }, redo: { kind: 'remove' } })
    const plain = await step(imke, back.version, 'undo')
    expect((await routeOf(imke)).courses).toContainEqual(first)
    const again = await step(imke, plain.version, 'redo')
    expect(again.redo).toMatchObject({ kind: 'remove' })
    await step(imke, again.version, 'undo')
  })
  it('has nothing to make again once something else is done', async () => {
    const { version } = await routeOf(imke)
    const { version: now, redo } = await change(imke, version, {
      kind: 'add',
      planned: planned('HERI 320', 'SP28')
    })
    expect(redo).toBeNull()
    await expect(step(imke, now, 'redo')).rejects.toMatchObject({ status: 409, code: 'nothingTo' })
    await step(imke, now, 'undo')
  })
  it('goes with several changes as with one', async () => {
    const before = await codesOf(imke)
    const { version } = await routeOf(imke)
    const both = await change(imke, version, {
      kind: 'several',
      changes: [
        { kind: 'add', planned: planned('HERI 320', 'SP28') },
        { kind: 'add', planned: planned('STAT 330', 'SP29', 4) }
      ]
    })
    expect(await codesOf(imke)).toHaveLength(before.length + 2)
    await step(imke, both.version, 'undo')
    expect((await codesOf(imke)).sort()).toEqual(before.sort())
  })
  it('keeps nothing of several changes when one of them fails', async () => {
    const before = await codesOf(imke)
    const { version } = await routeOf(imke)
    const half = change(imke, version, {
      kind: 'several',
      changes: [
        { kind: 'add', planned: planned('HERI 320', 'SP28') },
        { kind: 'remove', planned: planned('ARTS 120', 'SP29') }
      ]
    })
    await expect(half).rejects.toMatchObject({ code: 'notInTerm' })
    expect(await codesOf(imke)).toEqual(before)
  })
})

describe('versions', () => {
  it('are kept with who made them, and the route returns to one', async () => {
    const start = await routeOf(imke)
    const before = await codesOf(imke)
    await change(imke, start.version, { kind: 'add', planned: planned('HERI 320', 'SP28') })
    const versions = await readVersions(world.db, idOf(imke), start.id!)
    expect(versions[0]).toMatchObject({ by: 'Imke Varga', kind: 'do', change: { kind: 'add' } })
    const when = await by(imke)
    const { version } = await routeOf(imke)
    await within(world, (tx) => returnTo(tx, when, { route: null, version, to: start.version }))
    expect((await codesOf(imke)).sort()).toEqual(before.sort())
    const there = returnTo.bind(undefined)
    await expect(
      within(world, (tx) => there(tx, when, { route: null, version: version + 1, to: start.version }))
    ).rejects.toMatchObject({ code: 'nothingChanged' })
  })
})

describe('several routes', () => {
  it('are made, copied, named, chosen and taken away, each with a history of its own', async () => {
    const when = await by(bram)
    const main = await routeOf(bram)
    const copy = await within(world, (tx) =>
      makeRoute(tx, when, { name: 'With an exchange', copyOf: main.id })
    )
    const both = await routesOf(bram)
    expect(both.map((r) => [r.name, r.chosen])).toEqual([
      [main.name, true],
      ['With an exchange', false]
    ])
    expect(both[1]!.courses).toEqual(main.courses)
    const taken = within(world, (tx) => makeRoute(tx, when, { name: 'With an exchange', copyOf: null }))
    await expect(taken).rejects.toMatchObject({ code: 'nameTaken', fields: [{ field: 'name' }] })

    await change(bram, both[1]!.version, { kind: 'add', planned: planned('HERI 320', 'SP28') }, copy.route)
    const [first, second] = await routesOf(bram)
    expect(first!.courses).toEqual(main.courses)
    expect(second!.courses).toHaveLength(main.courses.length + 1)

    await within(world, async (tx) => {
      await describeRoute(tx, when, copy.route, { note: 'If the place abroad comes through' })
      await chooseRoute(tx, when, copy.route)
    })
    expect(await routeOf(bram)).toMatchObject({ id: copy.route, note: 'If the place abroad comes through' })
    await expect(within(world, (tx) => dropRoute(tx, when, copy.route))).rejects.toMatchObject({
      code: 'chosen'
    })
    await within(world, (tx) => chooseRoute(tx, when, main.id!))
    await within(world, (tx) => dropRoute(tx, when, copy.route))
    expect(await routesOf(bram)).toHaveLength(1)
  })
  it('belong to their student', async () => {
    const { id, version } = await routeOf(imke)
    const foreign = change(bram, version, { kind: 'add', planned: planned('HERI 320', 'SP28') }, id)
    await expect(foreign).rejects.toMatchObject({ status: 404, code: 'noRoute' })
  })
  it('tell that the advisor has seen them, and at which version', async () => {
    await markSeen(world.db, { who: orla, student: idOf(imke), now: Date.parse('2027-04-09T14:00:00Z') })
    const { seen, version } = await routeOf(imke)
    expect(seen).toEqual({ by: 'Orla Denholt', at: Date.parse('2027-04-09T14:00:00Z'), version })
  })
})

describe('what can be carried', () => {
  it('is set once, changed by term, and reckoned with by the checks', async () => {
    const when = await by(imke)
    const carry = {
      credits: 15,
      least: 9,
      hours: 30,
      outside: 12,
      target: termCode('SP29'),
      terms: [
        { term: termCode('AU27'), credits: 12, hours: null, away: null },
        { term: termCode('SP28'), credits: null, hours: null, away: 'exchange' as const }
      ]
    }
    await within(world, (tx) => writeCarry(tx, when, carry))
    const [studentRecord] = await readStudentRecords(world.db, [idOf(imke)], 'self')
    expect(studentRecord!.carry).toEqual(carry)
    const { context, findings } = readStudent(studentRecord!, world.catalogContext, when.now)
    const term = (code: string) => world.catalogContext.terms.find((one) => one.code === code)!
    expect([context.loadMost(term('AU27')), context.loadMost(term('AU28'))]).toEqual([12, 15])
    expect(findings.filter((f) => f.code === 'away').every((f) => f.term === 'SP28')).toBe(true)
    await within(world, (tx) => writeCarry(tx, when, { ...carry, least: null, terms: [] }))
    const log = await world.db.select().from(t.eventLog).where(eq(t.eventLog.action, 'carry.changed'))
    expect(log.at(-1)).toMatchObject({ before: carry, after: { ...carry, least: null, terms: [] } })
    expect(findings.map((f) => f.code)).toContain('away')
    // Summer 2028 and Autumn 2028 hold fewer than nine credits; a summer may, and so may the last term.
    expect(findings.flatMap((f) => (f.code === 'lightLoad' ? [f.term] : []))).toEqual(['AU28'])
  })
})
