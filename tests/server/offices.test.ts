/** What the registrar's office does to records: any student is found, holds are placed on some and lifted. */
import { and, eq, isNotNull } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Who } from '#shared/accounts/responses'
import { signOffPolicyOf } from '#shared/advising/review'
import { holdsBody } from '#shared/offices/requests'
import * as t from '#server/db/schema/index'
import { changeHoldKind, dropHoldKind, makeHoldKind } from '#server/features/offices/holdKinds'
import { liftHold, placeHolds, readHolds } from '#server/features/offices/holds'
import { everybodyOf, nudge, readOpeningFigures, readUnready } from '#server/features/offices/openingFigures'
import { moveOpening } from '#server/features/offices/openings'
import { findStudents } from '#server/features/offices/people'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { opensFor as opensForTerm } from '#server/features/registration/openings'
import { LACKS } from '#shared/offices/openings'
import { at, AUTUMN, demoWorld, idOf, person, within, type World } from './world'

let world: World
let edda: Who & { id: number }
let imke: Who
let bram: Who
beforeAll(async () => {
  world = await demoWorld('offices')
  edda = await person(world.db, 'Edda Whitlock')
  imke = await person(world.db, 'Imke Varga')
  bram = await person(world.db, 'Bram Ostrander')
})
afterAll(() => world.close())

const numberOf = async (who: Who) =>
  (await readStudentRecords(world.db, [idOf(who)], 'self'))[0]!.student.number
const holdsOf = async (who: Who) =>
  (await readStudentRecords(world.db, [idOf(who)], 'self'))[0]!.holds.map((one) => one.title)
const kindOf = async (title: string) =>
  (await readHolds(world.db, edda)).kinds.find((one) => one.title === title)!.id
async function place(title: string, students: { number: string; amount?: number }[]) {
  const { now } = await at(world)
  const said = holdsBody.parse({ kind: await kindOf(title), students })
  return within(world, (tx) => placeHolds(tx, edda, said, now))
}
const mailed = async (action: string) =>
  world.db
    .select({ name: t.account.name })
    .from(t.mail)
    .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
    .innerJoin(t.account, eq(t.account.id, t.mail.accountId))
    .where(eq(t.eventLog.action, action))
    .then((rows) => rows.map((row) => row.name))

describe('a hold', () => {
  it('is placed on several, but for those who have it, and told to each', async () => {
    const students = [
      { number: await numberOf(imke), amount: 12.5 },
      { number: await numberOf(bram), amount: 9 }
    ]
    const before = (await readHolds(world.db, edda)).open.length
    expect(await place('Library fine', students)).toEqual({
      placed: ['Imke Varga'],
      already: ['Bram Ostrander']
    })
    expect(await holdsOf(imke)).toEqual(['Library fine'])
    const { open } = await readHolds(world.db, edda)
    expect(open.length).toBe(before + 1)
    expect(open.find((one) => one.student === idOf(imke))).toMatchObject({
      amount: 12.5,
      placedBy: 'Edda Whitlock',
      stopsRegistration: true
    })
    // What stood before is as it was.
    expect(open.find((one) => one.student === idOf(bram))).toMatchObject({ amount: 14.5, placedBy: null })
    expect(await mailed('hold.placed')).toEqual(['Imke Varga'])
  })
  it('is placed on all who are named or on none', async () => {
    const known = await numberOf(bram)
    const before = (await readHolds(world.db, edda)).open.length
    await expect(
      place('Address not confirmed', [{ number: known }, { number: 'H999999' }])
    ).rejects.toMatchObject({ status: 422, code: 'noStudent', fields: [{ field: 'students.1.number' }] })
    await expect(place('Address not confirmed', [{ number: known, amount: 3 }])).rejects.toMatchObject({
      code: 'amount',
      fields: [{ field: 'students.0.amount' }]
    })
    await expect(place('Library fine', [{ number: known }])).rejects.toMatchObject({ code: 'amount' })
    expect((await readHolds(world.db, edda)).open.length).toBe(before)
  })
  it('is lifted once, and told', async () => {
    const { open } = await readHolds(world.db, edda)
    const { id } = open.find((one) => one.student === idOf(imke))!
    const { now } = await at(world)
    const lift = () => within(world, (tx) => liftHold(tx, edda, id, now))
    await lift()
    expect(await holdsOf(imke)).toEqual([])
    expect(await mailed('hold.lifted')).toEqual(['Imke Varga'])
    await expect(lift()).rejects.toMatchObject({ status: 404, code: 'noHold' })
  })
})

describe('a student is found', () => {
  const names = async (asked: string) => (await findStudents(world.db, asked)).students.map((one) => one.name)
  it('by a part of the name, the number, or the program, each word for itself', async () => {
    expect(await names('varga')).toContain('Imke Varga')
    expect(await names(await numberOf(imke))).toEqual(['Imke Varga'])
    const heritage = await findStudents(world.db, 'heri ostr')
    expect(heritage.students).toMatchObject([{ name: 'Bram Ostrander', holds: ['Library fine'] }])
    expect(await names('varga heri')).toEqual([])
  })
  it('with signs that mean something to a database taken as they are', async () => {
    expect(await names('%')).toEqual([])
    expect(await names('_mke')).toEqual([])
    expect(await names("o'--\\")).toEqual([])
  })
  it('among all of them, of whom the first are listed', async () => {
    const found = await findStudents(world.db, '')
    expect(found.all).toBe(await world.db.$count(t.student))
    expect(found.students).toHaveLength(60)
  })
})

describe('an office that places holds', () => {
  it('sees, places and lifts its own, and nothing of another', async () => {
    const perrin = await person(world.db, 'Perrin Hale')
    const seen = await readHolds(world.db, perrin)
    const all = await readHolds(world.db, edda)
    expect([seen.office, all.office]).toEqual(['Library desk', null])
    expect(seen.open).toEqual(all.open.filter((one) => one.office === 'Library desk'))
    expect(seen.kinds).toEqual(all.kinds.filter((one) => one.office === 'Library desk'))
    expect(seen.open.length).toBeGreaterThan(0)
    expect(all.open.length).toBeGreaterThan(seen.open.length)
    const { now } = await at(world)
    const place = (kind: number, amount: number | null) =>
      within(world, async (tx) =>
        placeHolds(tx, perrin, { kind, students: [{ number: await numberOf(imke), amount }] }, now)
      )
    const other = all.kinds.find((one) => one.office !== 'Library desk')!
    await expect(place(other.id, other.takesAmount ? 5 : null)).rejects.toMatchObject({ code: 'noKind' })
    expect(await place(seen.kinds[0]!.id, 5)).toEqual({ placed: ['Imke Varga'], already: [] })
    const own = (await readHolds(world.db, perrin)).open.find((one) => one.name === 'Imke Varga')!
    expect(own).toMatchObject({ placedBy: 'Perrin Hale', office: 'Library desk' })
    const foreign = all.open.find((one) => one.office !== 'Library desk')!
    await expect(within(world, (tx) => liftHold(tx, perrin, foreign.id, now))).rejects.toMatchObject({
      code: 'noHold'
    })
    await within(world, (tx) => liftHold(tx, perrin, own.id, now))
    expect((await readHolds(world.db, perrin)).open).toEqual(seen.open)
  })
})

describe('an opening', () => {
  const figures = async () => readOpeningFigures(world.db, world.catalogContext, (await at(world)).now)
  const opensForAll = async (opens: number) => {
    const all = await opensForTerm(world.db, AUTUMN, await everybodyOf(world.db))
    return [...all].flatMap(([student, at]) => (at === opens ? [student] : []))
  }
  const move = async (id: number, opens: number) => {
    const when = await at(world)
    return within(world, (tx) => moveOpening(tx, edda, id, opens, when))
  }
  const opensFor = async (who: Who) =>
    (await readStudentRecords(world.db, [idOf(who)], 'self'))[0]!.openings.find((one) => one.term === AUTUMN)!
      .opens
  it('says for how many it is and who is not ready, each student once', async () => {
    const all = (await figures()).filter((one) => one.term === AUTUMN)
    const ids = (await world.db.select({ id: t.student.id }).from(t.student)).map((row) => row.id)
    const records = await readStudentRecords(world.db, ids, 'registrar')
    const autumn = world.catalogContext.terms.find((one) => one.code === AUTUMN)!
    for (const one of all) {
      const people = records.filter(
        (record) => record.openings.find((opening) => opening.term === AUTUMN)?.opens === one.opens
      )
      if (all.find((other) => other.opens === one.opens) !== one) continue
      expect(one.students, one.title).toBe(people.length)
      expect(one.lacks.hold, one.title).toBe(
        people.filter((record) => record.holds.some((hold) => hold.stopsRegistration)).length
      )
      expect(one.lacks.signOff, one.title).toBe(
        people.filter(
          (record) =>
            signOffPolicyOf(record, autumn) !== 'none' &&
            !record.signOffs.some((signOff) => signOff.term === AUTUMN)
        ).length
      )
      const inAutumn = (of: { term: string }) => of.term === AUTUMN
      const coursesOf = (record: (typeof people)[number]) =>
        record.route.courses.filter(inAutumn).map((planned) => planned.course)
      const settled = (record: (typeof people)[number]) => {
        const going = record.drafts.find((draft) => inAutumn(draft) && draft.goingWith)
        const picked = record.sections.filter((section) => going?.sections.includes(section.code))
        return new Set([...picked, ...record.held.filter(inAutumn)].map((of) => of.course))
      }
      expect(one.lacks.plan, one.title).toBe(
        people.filter((record) => !coursesOf(record).length && !record.held.some(inAutumn)).length
      )
      expect(one.lacks.sections, one.title).toBe(
        people.filter((record) => coursesOf(record).some((course) => !settled(record).has(course))).length
      )
      expect(one.unready).toBeLessThanOrEqual(one.students)
      expect(one.unready).toBeGreaterThanOrEqual(Math.max(...Object.values(one.lacks)))
    }
  })
  it('names who is not ready, each with what they lack and who advises them', async () => {
    for (const one of await figures()) {
      const found = await readUnready(world.db, one.id, {
        catalogContext: world.catalogContext,
        now: (await at(world)).now
      })
      expect(found.length, one.title).toBe(one.unready)
      for (const lack of LACKS)
        expect(found.filter(({ lacks }) => lacks.includes(lack)).length, `${one.title} ${lack}`).toBe(
          one.lacks[lack]
        )
      expect(found.filter((who) => !who.name || !who.number || !who.lacks.length)).toEqual([])
    }
    const opening = (await figures()).find((one) => one.term === AUTUMN && one.unready)!
    const when = { catalogContext: world.catalogContext, now: (await at(world)).now }
    expect(await readUnready(world.db, opening.id, when)).toEqual(
      expect.arrayContaining([expect.objectContaining({ advisor: expect.any(String) as string })])
    )
    await expect(readUnready(world.db, 99_999, when)).rejects.toMatchObject({ code: 'noOpening' })
  })
  it('counts the runs and seats of each minute of its first hour, and expects the same of those to come', async () => {
    const forget = async () => {
      await world.db.delete(t.receiptLine).where(isNotNull(t.receiptLine.id))
      await world.db.delete(t.receipt).where(isNotNull(t.receipt.id))
    }
    await forget()
    const [first, next] = (await figures()).filter((one) => one.term === AUTUMN && one.students)
    expect([first!.hour?.isMeasured, next!.hour]).toEqual([true, null])
    const { id: termId } = (await world.db.select().from(t.term).where(eq(t.term.code, AUTUMN)))[0]!
    const opens = await opensForAll(first!.opens)
    const runs = [0, 30_000, 59_999, 60_000, 3_599_999, 3_600_000, -1]
    for (const [i, after] of runs.entries()) {
      const when = new Date(first!.opens + after)
      const [made] = await world.db
        .insert(t.receipt)
        .values({
          studentId: opens[i]!,
          termId,
          at: when,
          byId: null,
          runKey: `hour-${i}`,
          begunAt: when,
          endedAt: when
        })
        .$returningId()
      const line = { receiptId: made!.id, courseId: 1, sections: [], gaveBack: [], refusals: [] }
      await world.db.insert(t.receiptLine).values([
        { ...line, ordinal: 1, outcome: 'registered' },
        { ...line, ordinal: 2, outcome: 'refused' },
        { ...line, ordinal: 3, outcome: 'dropped', action: 'drop' }
      ])
    }
    const [measured, expected] = (await figures()).filter((one) => one.term === AUTUMN && one.students)
    expect(measured!.hour!.runs.flatMap((n, minute) => (n ? [[minute, n]] : []))).toEqual([
      [0, 3],
      [1, 1],
      [59, 1]
    ])
    expect(measured!.hour!.seats).toEqual(measured!.hour!.runs)
    expect(expected!.hour).toMatchObject({ isMeasured: false })
    expect(expected!.hour!.runs[0]).toBeCloseTo((3 * expected!.students) / measured!.students)
    await forget()
  })
  it('has those told who are not ready, what they lack, once a day', async () => {
    const before = await opensFor(imke)
    const mine = (await figures()).find((one) => one.term === AUTUMN && one.opens === before)!
    const press = async (later = 0) => {
      const now = (await at(world)).now + later
      return within(world, (tx) => nudge(tx, edda, mine.id, { catalogContext: world.catalogContext, now }))
    }
    expect(await press()).toEqual({ told: mine.unready, already: 0 })
    expect(await press(3_600_000)).toEqual({ told: 0, already: mine.unready })
    expect(await press(86_400_001)).toEqual({ told: mine.unready, already: 0 })
    expect((await mailed('opening.nudged')).length).toBe(2 * mine.unready)
    const [event] = await world.db
      .select({ after: t.eventLog.after })
      .from(t.eventLog)
      .where(and(eq(t.eventLog.action, 'opening.nudged'), eq(t.eventLog.studentId, idOf(imke))))
    expect(event!.after).toMatchObject({ opens: before, lacks: ['signOff', 'sections'] })
    await expect(
      within(world, (tx) => nudge(tx, edda, 99_999, { catalogContext: world.catalogContext, now: 0 }))
    ).rejects.toMatchObject({ code: 'noOpening' })
  })
  it('is moved while it is to come, and those concerned are told', async () => {
    const before = await opensFor(imke)
    const mine = (await figures()).find((one) => one.term === AUTUMN && one.opens === before)!
    const later = before + 3_600_000
    const { told } = await move(mine.id, later)
    expect(told).toBe(mine.students)
    expect(await opensFor(imke)).toBe(later)
    expect((await mailed('opening.moved')).length).toBe(told)
    expect(await mailed('opening.moved')).toContain('Imke Varga')
    await move(mine.id, before)
  })
  it('is not moved once it is open, nor to where nobody could add', async () => {
    const { now } = await at(world)
    const all = (await figures()).filter((one) => one.term === AUTUMN)
    const open = all.find((one) => one.opens <= now)!
    await expect(move(open.id, now + 60_000)).rejects.toMatchObject({ status: 409, code: 'open' })
    const ahead = all.find((one) => one.opens > now)!
    const ends = world.catalogContext.terms.find((one) => one.code === AUTUMN)!.addEndsAt
    for (const opens of [now, ends, ends + 1])
      await expect(move(ahead.id, opens)).rejects.toMatchObject({ fields: [{ field: 'opens' }] })
    await expect(move(99_999, now + 60_000)).rejects.toMatchObject({ status: 404 })
  })
})

describe('a kind of hold', () => {
  const said = {
    ...{ title: 'Key not returned', office: 'Housing', howToLift: 'Bring the key to Housing.' },
    ...{ stopsRegistration: false, stopsTranscript: true, takesAmount: false }
  }
  it('is made, changed for those placed later, and taken away without its holds', async () => {
    const { now } = await at(world)
    const { kind } = await within(world, (tx) => makeHoldKind(tx, edda, said, now))
    await expect(within(world, (tx) => makeHoldKind(tx, edda, said, now))).rejects.toMatchObject({
      code: 'kindKnown'
    })
    await place('Key not returned', [{ number: await numberOf(bram) }])
    const stops = { ...said, stopsRegistration: true }
    await within(world, (tx) => changeHoldKind(tx, edda, kind, stops, now))
    const held = async () =>
      (await readHolds(world.db, edda)).open.find((one) => one.title === 'Key not returned')
    // As it was placed.
    expect(await held()).toMatchObject({ stopsRegistration: false, stopsTranscript: true })
    await within(world, (tx) => dropHoldKind(tx, edda, kind, now))
    expect((await readHolds(world.db, edda)).kinds.some((one) => one.id === kind)).toBe(false)
    const left = (await held())!
    await within(world, (tx) => liftHold(tx, edda, left.id, now))
    await expect(within(world, (tx) => dropHoldKind(tx, edda, kind, now))).rejects.toMatchObject({
      status: 404
    })
  })
})
