import { eq, inArray, sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { courseCode } from '#core/ids'
import type { Who } from '#shared/accounts/responses'
import * as t from '#server/db/schema/index'
import { whoIs } from '#server/features/accounts/accounts'
import { writeFallbacks } from '#server/features/registration/fallbacks'
import { run } from '#server/features/registration/run'
import { readSheet } from '#server/features/registration/sheet'
import { goingWith } from '#shared/reading'
import { readStudentRecords } from '#server/features/record/studentRecords'
import {
  at,
  AUTUMN,
  demoWorld,
  idOf,
  OPENS,
  person,
  pickFor,
  sectionsNumbered,
  setTime,
  signOff,
  within,
  type World
} from './world'

let world: World
let imke: Who
beforeAll(async () => {
  world = await demoWorld('registration')
  imke = await person(world.db, 'Imke Varga')
})
afterAll(() => world.close())

const go = (who: Who, ...courses: string[]) =>
  run(world.db, who, idOf(who), { term: AUTUMN, courses: courses.map(courseCode) }, world.catalogContext)
const codes = (line: { refusals: { code: string }[] }) => line.refusals.map((r) => r.code)
const seats = async (...ids: number[]) =>
  world.db.select({ taken: t.section.taken }).from(t.section).where(inArray(t.section.id, ids))
const sheet = async (who: Who) => {
  const [studentRecord] = await readStudentRecords(world.db, [idOf(who)], 'self')
  return readSheet(world.db, studentRecord!, world.catalogContext, AUTUMN, (await at(world)).now)
}

describe('before the opening', () => {
  it('every line is refused with every reason, and no seat moves', async () => {
    const [section] = await sectionsNumbered(world, 'MATH 231', '01')
    const before = await seats(section!.id)
    const receipt = await go(imke, 'MATH 231')
    expect(receipt.lines).toMatchObject([{ outcome: 'refused' }])
    expect(codes(receipt.lines[0]!)).toEqual(['notOpen', 'signOff'])
    expect(await seats(section!.id)).toEqual(before)
  })
  it('the run sheet is judged as of the opening', async () => {
    const { lines, general, checkedFor } = await sheet(imke)
    expect(checkedFor).toBe(OPENS)
    expect(general.map((r) => r.code)).toEqual(['notOpen', 'signOff'])
    expect(lines.map((line) => [line.course, line.state, codes(line)])).toEqual([
      ['ENDA 310', 'ready', []],
      ['MATH 231', 'ready', []],
      ['SOIL 220', 'ready', []],
      ['WRIT 215', 'ready', []],
      ['ENDA 325', 'unsettled', []]
    ])
  })
  it('what is tried after a line that is bound to another says that it is not tried', async () => {
    const course = courseCode('SOIL 220')
    const said = async (onlyWith: string | null) => {
      const when = { who: imke, student: idOf(imke), ...(await at(world)) }
      const wish = {
        term: AUTUMN,
        course,
        list: [{ kind: 'line' as const }],
        givingUp: null,
        credits: null,
        note: null
      }
      await within(world, (tx) =>
        writeFallbacks(tx, when, { ...wish, onlyWith: onlyWith ? courseCode(onlyWith) : null })
      )
      return (await sheet(imke)).lines.find((line) => line.course === course)!.fallbacks[0]!.refusals
    }
    expect(await said(null)).toEqual([])
    expect(await said('MATH 231')).toEqual([{ code: 'together', with: 'MATH 231' }])
    await world.db.delete(t.fallback)
  })
})

describe('at the opening', () => {
  it('a run of all or nothing leaves everything where one line is refused', async () => {
    await signOff(world, await person(world.db, 'Orla Denholt'), idOf(imke))
    await setTime(world, OPENS)
    const [full] = await sectionsNumbered(world, 'WRIT 215', '01')
    const [{ capacity, taken }] = (await world.db
      .select()
      .from(t.section)
      .where(eq(t.section.id, full!.id))) as [typeof t.section.$inferSelect]
    await world.db.update(t.section).set({ capacity: taken }).where(eq(t.section.id, full!.id))
    const asked = {
      term: AUTUMN,
      courses: ['MATH 231', 'WRIT 215'].map(courseCode),
      whole: true,
      key: 'all-or-nothing'
    }
    const send = () => run(world.db, imke, idOf(imke), asked, world.catalogContext)
    const receipt = await send()
    expect(receipt).toMatchObject({ whole: true, ended: true })
    expect(receipt.lines.map((line) => [line.course, line.outcome, ...codes(line)])).toEqual([
      ['MATH 231', 'refused', 'together'],
      ['WRIT 215', 'refused', 'full']
    ])
    expect((await send()).id).toBe(receipt.id)
    await world.db.update(t.section).set({ capacity }).where(eq(t.section.id, full!.id))
  })
  it('a run registers what it can, line by line, and says so on the receipt', async () => {
    const [lecture, lab] = await sectionsNumbered(world, 'SOIL 220', '01', '01A')
    const before = await seats(lecture!.id, lab!.id)
    const receipt = await go(imke, 'SOIL 220', 'MATH 231', 'ENDA 325')
    expect(receipt.lines.map((line) => [line.course, line.outcome])).toEqual([
      ['SOIL 220', 'registered'],
      ['MATH 231', 'registered'],
      ['ENDA 325', 'unsettled']
    ])
    expect(receipt.lines[0]!.sections).toHaveLength(2)
    const after = await seats(lecture!.id, lab!.id)
    expect(after.map((row, i) => row.taken - before[i]!.taken)).toEqual([1, 1])
  })
  it('a second run of the same line is refused, and the seat counted once', async () => {
    const [section] = await sectionsNumbered(world, 'MATH 231', '01')
    const before = await seats(section!.id)
    expect(codes((await go(imke, 'MATH 231')).lines[0]!)).toEqual(['alreadyRegistered'])
    expect(await seats(section!.id)).toEqual(before)
  })
  it('two runs of one student at the same time take one seat', async () => {
    const [section] = await sectionsNumbered(world, 'WRIT 215', '01')
    const [before] = await seats(section!.id)
    const receipts = await Promise.all([
      go(imke, 'WRIT 215'),
      go(imke, 'WRIT 215', 'MATH 231'),
      go(imke, 'MATH 231', 'WRIT 215')
    ])
    const outcomes = receipts.map((r) => r.lines.find((line) => line.course === 'WRIT 215')!.outcome)
    expect(outcomes.filter((outcome) => outcome === 'registered').length).toBeGreaterThan(0)
    expect((await seats(section!.id))[0]!.taken).toBe(before!.taken + 1)
  })
  it('a hold stops every line', async () => {
    const bram = await person(world.db, 'Bram Ostrander')
    const [section] = await sectionsNumbered(world, 'ARTS 120', '01')
    await pickFor(world, bram, 'ARTS 120', section!.number)
    expect(codes((await go(bram, 'ARTS 120')).lines[0]!)).toContain('hold')
  })
  it('corequisites go through together or not at all', async () => {
    const hanne = await person(world.db, 'Hanne Petrossian')
    await signOff(world, await person(world.db, 'Orla Denholt'), idOf(hanne))
    await pickFor(world, hanne, 'HYDR 331', '01')
    expect(codes((await go(hanne, 'HYDR 331')).lines[0]!)).toContain('corequisite')
    await pickFor(world, hanne, 'HYDR 332', '01')
    const [partner] = await sectionsNumbered(world, 'HYDR 332', '01')
    await world.db
      .update(t.section)
      .set({ capacity: sql`greatest(taken, 1)`, taken: sql`greatest(taken, 1)` })
      .where(eq(t.section.id, partner!.id))
    const failed = await go(hanne, 'HYDR 331', 'HYDR 332')
    expect(failed.lines.map((l) => [l.outcome, codes(l)])).toEqual([
      ['refused', ['together']],
      ['refused', ['full']]
    ])
    await world.db.update(t.section).set({ capacity: 20 }).where(eq(t.section.id, partner!.id))
    const done = await go(hanne, 'HYDR 331', 'HYDR 332')
    expect(done.lines.map((l) => l.outcome)).toEqual(['registered', 'registered'])
  })
  it('a term is closed for adding from its date on', async () => {
    const [term] = await world.db.select().from(t.term).where(eq(t.term.code, AUTUMN))
    await setTime(world, term!.addEndsAt.getTime())
    expect(codes((await go(imke, 'ENDA 310')).lines[0]!)).toContain('closed')
    await setTime(world, OPENS)
  })
  it('keeps every receipt, the newest first', async () => {
    const { receipts } = await sheet(imke)
    expect(receipts.length).toBeGreaterThanOrEqual(5)
    expect(receipts.map((r) => r.id)).toEqual(receipts.map((r) => r.id).sort((a, b) => b - a))
  })
})

describe('an exchange of a seat', () => {
  const labs = async () => {
    const rows = await sectionsNumbered(world, 'SOIL 220', '01', '01A', '01B')
    const taken = await Promise.all(rows.map(async ({ id }) => (await seats(id))[0]!.taken))
    return { rows, taken: taken as [number, number, number] }
  }
  const held = async () =>
    (await readStudentRecords(world.db, [idOf(imke)], 'self'))[0]!.held.find(
      (seat) => seat.course === 'SOIL 220'
    )

  it('is prepared like a pick, and the run sheet says what is given back', async () => {
    const { rows } = await labs()
    await pickFor(world, imke, 'SOIL 220', '01', '01B')
    const line = (await sheet(imke)).lines.find((one) => one.course === 'SOIL 220')!
    expect(line.state).toBe('ready')
    expect(line.refusals).toEqual([])
    expect(line.givesBack.map((one) => one.code)).toEqual([rows[1]!.code])
  })
  it('that is refused leaves the seat that is held', async () => {
    const before = await labs()
    const { id } = before.rows[2]!
    const full = { capacity: sql`greatest(taken, 1)`, taken: sql`greatest(taken, 1)` }
    await world.db.update(t.section).set(full).where(eq(t.section.id, id))
    const { lines } = await go(imke, 'SOIL 220')
    expect([lines[0]!.outcome, codes(lines[0]!), lines[0]!.gaveBack]).toEqual(['refused', ['full'], []])
    expect((await labs()).taken.slice(0, 2)).toEqual(before.taken.slice(0, 2))
    expect((await held())!.components).toEqual([before.rows[1]!.code])
    await world.db.update(t.section).set({ capacity: 12, taken: before.taken[2] }).where(eq(t.section.id, id))
  })
  it('moves one seat in one step, and is told on the receipt and in the log', async () => {
    const before = await labs()
    const [lecture, old, wanted] = before.rows
    const { lines } = await go(imke, 'SOIL 220')
    expect(lines).toMatchObject([
      { outcome: 'exchanged', sections: [lecture!.code, wanted!.code], gaveBack: [old!.code] }
    ])
    const [l, a, b] = before.taken
    expect((await labs()).taken).toEqual([l, a - 1, b + 1])
    expect((await held())!.components).toEqual([wanted!.code])
    const [event] = await world.db
      .select()
      .from(t.eventLog)
      .where(eq(t.eventLog.action, 'registration.exchanged'))
    expect([event!.before, event!.after]).toMatchObject([
      { sections: [old!.code] },
      { sections: [lecture!.code, wanted!.code] }
    ])
  })
  it('is done with once it went through', async () => {
    const line = (await sheet(imke)).lines.find((one) => one.course === 'SOIL 220')!
    expect([line.state, line.givesBack]).toEqual(['registered', []])
    const [studentRecord] = await readStudentRecords(world.db, [idOf(imke)], 'self')
    expect(goingWith(studentRecord!, AUTUMN)!.exchanges).toEqual([])
    expect(codes((await go(imke, 'SOIL 220')).lines[0]!)).toEqual(['alreadyRegistered'])
  })
})

describe('seats kept for a program', () => {
  it('are not taken by others, however many of them ask at once', async () => {
    const { db } = world
    const [section] = await sectionsNumbered(world, 'LANG 101', '01')
    await db.delete(t.registration).where(eq(t.registration.sectionId, section!.id))
    await db.update(t.section).set({ capacity: 6, taken: 0 }).where(eq(t.section.id, section!.id))
    const kept = { sectionId: section!.id, programCode: 'ZZZ', seats: 4 }
    await db.insert(t.reservedSeats).values(kept)
    const racers = await crowdFor('LANG 101', 8)
    for (const who of racers) await pickFor(world, who, 'LANG 101', '01')
    const lines = (await Promise.all(racers.map((who) => go(who, 'LANG 101')))).map((r) => r.lines[0]!)
    expect(lines.filter((l) => l.outcome === 'registered')).toHaveLength(2)
    expect(new Set(lines.flatMap(codes))).toEqual(new Set(['reserved']))
    expect((await seats(section!.id))[0]!.taken).toBe(2)
    await db.delete(t.registration).where(eq(t.registration.sectionId, section!.id))
    await db.update(t.section).set({ taken: 0 }).where(eq(t.section.id, section!.id))
  })
})

/** Juniors whom nothing keeps from a course, signed off for it. */
async function crowdFor(course: string, people: number): Promise<Who[]> {
  const { db } = world
  // What a program asks for beside it keeps nobody here.
  await db.delete(t.programSignOff)
  const crowd = await db
    .select({ account: t.student.accountId })
    .from(t.student)
    .where(
      sql`${t.student.standing} = 'junior' and ${t.student.id} <> ${idOf(imke)}
        and not exists (select 1 from hold h where h.student_id = ${t.student.id} and h.lifted_at is null)
        and not exists (select 1 from record_course r join course c on c.id = r.course_id where r.student_id = ${t.student.id} and c.code = ${course})`
    )
    .limit(people)
  expect(crowd).toHaveLength(people)
  const orla = await person(db, 'Orla Denholt')
  const [term] = await db.select().from(t.term).where(eq(t.term.code, AUTUMN))
  const racers = await Promise.all(crowd.map((c) => whoIs(db, c.account)))
  for (const who of racers) {
    await db.delete(t.signOff).where(eq(t.signOff.studentId, idOf(who)))
    await db.insert(t.signOff).values({
      studentId: idOf(who),
      routeId: idOf(who),
      termId: term!.id,
      byId: orla.id,
      at: new Date(OPENS),
      courses: [course],
      creditsLeast: 1,
      creditsMost: 18,
      conditions: []
    })
  }
  return racers
}

describe('fifty students at once for ten seats', () => {
  const PEOPLE = 50
  const SEATS = 10

  it('fill exactly ten, and everybody is told what happened', async () => {
    const { db } = world
    const [section] = await sectionsNumbered(world, 'LANG 140', '01')
    await db.delete(t.registration).where(eq(t.registration.sectionId, section!.id))
    await db.update(t.section).set({ capacity: SEATS, taken: 0 }).where(eq(t.section.id, section!.id))
    const racers = await crowdFor('LANG 140', PEOPLE)
    for (const who of racers) await pickFor(world, who, 'LANG 140', '01')
    const receipts = await Promise.all(racers.map((who) => go(who, 'LANG 140')))
    const lines = receipts.map((r) => r.lines[0]!)
    expect(lines.filter((l) => l.outcome === 'registered')).toHaveLength(SEATS)
    const refused = lines.filter((l) => l.outcome === 'refused')
    expect(refused).toHaveLength(PEOPLE - SEATS)
    expect(refused.every((l) => codes(l).join() === 'full')).toBe(true)
    expect((await seats(section!.id))[0]!.taken).toBe(SEATS)
    expect(await db.$count(t.registration, eq(t.registration.sectionId, section!.id))).toBe(SEATS)
    const winners = receipts.filter((r) => r.lines[0]!.outcome === 'registered').length
    const events = await db.$count(
      t.eventLog,
      sql`${t.eventLog.action} = 'registration.made' and json_value(${t.eventLog.after}, '$.course') = 'LANG 140'`
    )
    expect(events).toBe(winners)
  })
})
