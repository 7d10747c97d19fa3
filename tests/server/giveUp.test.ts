/** Seats that are given up by a run: for another line, and before all of them. */
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { courseCode, type CourseCode } from '#core/ids'
import * as t from '#server/db/schema/index'
import { runArmed } from '#server/features/registration/armed'
import { writeFallbacks } from '#server/features/registration/fallbacks'
import { writePrepared } from '#server/features/registration/prepared'
import { disagreements } from '#server/features/registration/reconcile'
import { run, type RunAsked } from '#server/features/registration/run'
import { readSheet } from '#server/features/registration/sheet'
import { readStudentRecords } from '#server/features/record/studentRecords'
import type { Who } from '#shared/accounts/responses'
import type { LineFallbacks } from '#shared/registration/fallbacks'
import type { PreparedSheet } from '#shared/registration/prepared'
import {
  at,
  AUTUMN,
  idOf,
  LANGUAGE,
  newcomers,
  OPENS,
  openWorld,
  pickFor,
  sectionsNumbered,
  setTime,
  within,
  type World
} from './world'

const WRITING = courseCode('WRIT 101')
let world: World
let people: Who[]
let who: Who

beforeAll(async () => {
  world = await openWorld('giveup')
  people = await newcomers(world, 8)
  const [writing] = await world.db.select().from(t.course).where(eq(t.course.code, WRITING))
  await world.db.delete(t.recordCourse).where(eq(t.recordCourse.courseId, writing!.id))
})
afterAll(() => world.close())
beforeEach(async () => {
  await setTime(world, OPENS)
  who = people.pop()!
  await pickFor(world, who, LANGUAGE, '01')
  await go({ courses: [LANGUAGE] })
  await pickFor(world, who, WRITING, '01')
})

const go = (asked: Partial<RunAsked>) =>
  run(world.db, who, idOf(who), { term: AUTUMN, courses: [], ...asked }, world.catalogContext)
const when = async () => ({ who, student: idOf(who), ...(await at(world)) })
const say = async (over: Partial<LineFallbacks>, course: CourseCode = WRITING) => {
  const plain = { term: AUTUMN, course, list: [], onlyWith: null, givingUp: null, credits: null, note: null }
  const context = await when()
  await within(world, (tx) => writeFallbacks(tx, context, { ...plain, ...over }))
}
const prepare = async (over: Partial<PreparedSheet>) => {
  const plain = { term: AUTUMN, order: [], leftOut: [], drops: [], whole: false, armed: false }
  const context = await when()
  await within(world, (tx) => writePrepared(tx, context, { ...plain, ...over }))
}
const record = async () => (await readStudentRecords(world.db, [idOf(who)], 'self'))[0]!
const held = async () =>
  (await record()).held.filter((seat) => seat.term === AUTUMN).map((seat) => seat.course)
const sheet = async () =>
  readSheet(world.db, await record(), world.catalogContext, AUTUMN, (await at(world)).now)
const fill = async (capacity: 'full' | 'free') => {
  const [section] = await sectionsNumbered(world, WRITING, '01')
  const [row] = await world.db.select().from(t.section).where(eq(t.section.id, section!.id))
  const seats = capacity === 'full' ? row!.taken + row!.offered : row!.taken + 20
  await world.db.update(t.section).set({ capacity: seats }).where(eq(t.section.id, section!.id))
}
const told = (receipt: Awaited<ReturnType<typeof go>>) =>
  receipt.lines.map((line) => [line.action, line.course, line.outcome])

describe('a seat that is given up for another line', () => {
  it('goes with the seat that is had, in a line of its own, and the wish is done with', async () => {
    await say({ givingUp: LANGUAGE, note: 'if the labs allow' })
    const line = (await sheet()).lines.find((one) => one.course === WRITING)!
    expect([line.state, line.givesUp, line.refusals]).toEqual(['ready', LANGUAGE, []])
    const receipt = await go({ courses: [WRITING], key: 'once' })
    expect(told(receipt)).toEqual([
      ['register', WRITING, 'registered'],
      ['giveUp', LANGUAGE, 'dropped']
    ])
    expect(await held()).toEqual([WRITING])
    // The same run asked for again is the same receipt.
    expect(await go({ courses: [WRITING], key: 'once' })).toEqual(receipt)
    expect((await record()).fallbacks).toMatchObject([
      { course: WRITING, givingUp: null, note: 'if the labs allow' }
    ])
    expect(await disagreements(world.db)).toEqual([])
  })
  it('stays where the other is not had, and where a place in line is taken', async () => {
    await fill('full')
    await say({ givingUp: LANGUAGE })
    expect(told(await go({ courses: [WRITING] }))).toEqual([['register', WRITING, 'refused']])
    await say({ givingUp: LANGUAGE, list: [{ kind: 'line' }] })
    expect(told(await go({ courses: [WRITING] }))).toEqual([['register', WRITING, 'inLine']])
    expect(await held()).toEqual([LANGUAGE])
    await fill('free')
  })
  it('stays where it cannot be given up, and the line says so', async () => {
    await world.db
      .update(t.registration)
      .set({ placedByOffice: true })
      .where(eq(t.registration.studentId, idOf(who)))
    await say({ givingUp: LANGUAGE })
    const { lines } = await go({ courses: [WRITING] })
    expect(lines.map((line) => line.refusals)).toEqual([
      [{ code: 'notGivenUp', course: LANGUAGE, why: { code: 'placed' } }]
    ])
    expect(await held()).toEqual([LANGUAGE])
  })
  it('is not itself', async () => {
    await expect(say({ givingUp: WRITING })).rejects.toMatchObject({ code: 'forItself' })
  })
})

describe('a drop that was prepared', () => {
  it('is rehearsed, goes first at the opening, and does not come back', async () => {
    await setTime(world, OPENS - 1000)
    await prepare({ drops: [LANGUAGE], armed: true, order: [WRITING] })
    expect((await sheet()).lines.find((one) => one.course === LANGUAGE)!.state).toBe('registered')
    await setTime(world, OPENS)
    await runArmed(world.db, world.catalogContext)
    const [receipt] = (await sheet()).receipts
    expect(told(receipt!)).toEqual([
      ['drop', LANGUAGE, 'dropped'],
      ['register', WRITING, 'registered']
    ])
    expect((await record()).prepared).toMatchObject([{ drops: [], armed: false }])
    expect(await disagreements(world.db)).toEqual([])
  })
})
