import { eq, isNotNull, sql } from 'drizzle-orm'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { courseCode } from '#core/ids'
import { all } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { nextArmed, runArmed } from '#server/features/registration/armed'
import { writePrepared } from '#server/features/registration/prepared'
import { readSheet } from '#server/features/registration/sheet'
import { readStudentRecords } from '#server/features/record/studentRecords'
import type { Who } from '#shared/accounts/responses'
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

const HOUR = 3_600_000
const OTHER = courseCode('WRIT 101')
let world: World
let people: Who[]

beforeAll(async () => {
  world = await openWorld('armed')
  people = await newcomers(world, 8)
})
afterAll(() => world.close())

beforeEach(async () => {
  await setTime(world, OPENS - HOUR)
  for (const who of people) await pickFor(world, who, LANGUAGE, '01')
  await world.db.delete(t.preparedSheet)
})

async function prepare(who: Who, said: Partial<PreparedSheet>): Promise<void> {
  const when = { who, student: idOf(who), ...(await at(world)) }
  const plain = { term: AUTUMN, order: [], leftOut: [], drops: [], whole: false, armed: false }
  await within(world, (tx) => writePrepared(tx, when, { ...plain, ...said }))
}
const sheetOf = async (who: Who) => {
  const [studentRecord] = await readStudentRecords(world.db, [idOf(who)], 'self')
  return readSheet(world.db, studentRecord!, world.catalogContext, AUTUMN, (await at(world)).now)
}
const waiting = async () =>
  (await world.db.select().from(t.preparedSheet).where(isNotNull(t.preparedSheet.armedAt))).length

describe('a sheet that is left to run by itself', () => {
  it('is refused where the term has none, where it is open already, and for a course that is not there', async () => {
    const [who] = people
    await setTime(world, OPENS)
    await expect(prepare(who!, { armed: true })).rejects.toMatchObject({
      code: 'notArmed',
      message: 'Autumn 2027 is open for you already: register now.'
    })
    await setTime(world, OPENS - HOUR)
    await world.db.update(t.term).set({ arming: false }).where(eq(t.term.code, AUTUMN))
    await expect(prepare(who!, { armed: true })).rejects.toMatchObject({ code: 'notArmed', status: 422 })
    await world.db.update(t.term).set({ arming: true }).where(eq(t.term.code, AUTUMN))
    await expect(prepare(who!, { order: [courseCode('GONE 101')] })).rejects.toMatchObject({
      code: 'noCourse'
    })
    expect(await waiting()).toBe(0)
  })

  it('waits for its opening, and no longer once it was taken back', async () => {
    const [first, second] = people
    await prepare(first!, { armed: true })
    await prepare(second!, { armed: true })
    await prepare(second!, { armed: false })
    expect(await nextArmed(world.db)).toBe(OPENS)
    await runArmed(world.db, world.catalogContext)
    expect([(await sheetOf(first!)).receipts, await waiting()]).toEqual([[], 1])
    await setTime(world, OPENS)
    await runArmed(world.db, world.catalogContext)
    expect(await waiting()).toBe(0)
    expect(await nextArmed(world.db)).toBeUndefined()
    expect((await sheetOf(first!)).receipts).toMatchObject([
      { armed: true, by: first!.name, lines: [{ course: LANGUAGE, outcome: 'registered' }] }
    ])
    expect((await sheetOf(second!)).receipts).toEqual([])
  })

  it('runs in the order that was given, without what was left out, and tells of it by mail', async () => {
    const who = people[2]!
    await pickFor(world, who, OTHER, '01')
    const ready = async () =>
      (await sheetOf(who)).lines.filter((line) => line.state === 'ready').map((line) => line.course)
    await prepare(who, { order: [OTHER, LANGUAGE] })
    expect(await ready()).toEqual([OTHER, LANGUAGE])
    await prepare(who, { order: [LANGUAGE, OTHER] })
    expect(await ready()).toEqual([LANGUAGE, OTHER])
    await prepare(who, { armed: true, leftOut: [OTHER] })
    await setTime(world, OPENS)
    await runArmed(world.db, world.catalogContext)
    const { receipts } = await sheetOf(who)
    expect(receipts.map((one) => one.lines.map((line) => line.course))).toEqual([[LANGUAGE]])
    const [mail] = await world.db
      .select({ after: t.eventLog.after })
      .from(t.mail)
      .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
      .where(all(eq(t.eventLog.studentId, idOf(who)), eq(t.eventLog.action, 'sheet.ran')))
    expect(mail!.after).toEqual({ term: AUTUMN, receipt: receipts[0]!.id, lines: 1, seats: 1 })
  })

  it('has one order for all that are due, drawn anew each time, and is run once however many servers do', async () => {
    const racing = people.slice(3)
    for (const who of racing) await prepare(who, { armed: true })
    const [section] = await sectionsNumbered(world, LANGUAGE, '01')
    await world.db
      .update(t.section)
      .set({ capacity: sql`${t.section.taken} + 2` })
      .where(eq(t.section.id, section!.id))
    await setTime(world, OPENS)
    await Promise.all([1, 2, 3].map(() => runArmed(world.db, world.catalogContext)))
    const sheets = await Promise.all(racing.map(sheetOf))
    const lines = sheets.map((sheet) => sheet.receipts.flatMap((one) => one.lines))
    expect(lines.map((own) => own.length)).toEqual(racing.map(() => 1))
    const got = lines.flat().filter((line) => line.outcome === 'registered')
    expect([got.length, await waiting()]).toEqual([2, 0])
    const told = await world.db
      .select({ id: t.eventLog.id })
      .from(t.eventLog)
      .where(
        all(
          eq(t.eventLog.action, 'sheet.ran'),
          sql`student_id in ${racing.map((who) => idOf(who) as number)}`
        )
      )
    expect(told).toHaveLength(racing.length)
  })

  it('is left alone while another server is at it, and taken up as the same run once that one is gone', async () => {
    const who = people[1]!
    await prepare(who, { armed: true })
    const leased = (leasedUntil: Date) => world.db.update(t.preparedSheet).set({ lot: 0, leasedUntil })
    await leased(new Date(Date.now() + HOUR))
    await setTime(world, OPENS)
    await runArmed(world.db, world.catalogContext)
    expect((await sheetOf(who)).receipts).toEqual([])
    await leased(new Date(Date.now() - 1))
    await runArmed(world.db, world.catalogContext)
    expect((await sheetOf(who)).receipts).toHaveLength(1)
    expect(await waiting()).toBe(0)
  })

  it('that fails holds up none of the others, and is tried again once its lease is over', async () => {
    const [broken, fine] = [people[0]!, people[2]!]
    await prepare(broken, { armed: true })
    await prepare(fine, { armed: true, leftOut: [LANGUAGE, OTHER] })
    await world.db
      .update(t.preparedSheet)
      .set({ lot: 0 })
      .where(eq(t.preparedSheet.studentId, idOf(broken)))
    await world.db
      .update(t.preparedSheet)
      .set({ lot: 1 })
      .where(eq(t.preparedSheet.studentId, idOf(fine)))
    // What should never stand there: the record cannot be read.
    const spoilt = eq(t.preparedSheet.studentId, idOf(broken))
    await world.db
      .update(t.preparedSheet)
      .set({ order: sql`'null'` })
      .where(spoilt)
    await setTime(world, OPENS)
    await expect(runArmed(world.db, world.catalogContext)).rejects.toThrow()
    expect(await waiting()).toBe(1)
    await world.db
      .update(t.preparedSheet)
      .set({ order: [], leasedUntil: new Date(Date.now() - 1) })
      .where(spoilt)
    await runArmed(world.db, world.catalogContext)
    expect(await waiting()).toBe(0)
  })
})
