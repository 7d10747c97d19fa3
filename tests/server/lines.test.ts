/** The line for a full section: joined, left, served; no seat goes past it, none is lost, and the counts are the rows. */
import { eq, inArray, sql } from 'drizzle-orm'
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { courseCode, type SectionCode } from '#core/ids'
import type { Who } from '#shared/accounts/responses'
import type { Receipt } from '#shared/registration/responses'
import { all } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { answerOffer } from '#server/features/registration/answer'
import { run, type RunAsked } from '#server/features/registration/run'
import { disagreements } from '#server/features/registration/reconcile'
import { serveAllLines } from '#server/features/registration/serving'
import type { Fallback } from '#shared/registration/fallbacks'
import { writeFallbacks } from '#server/features/registration/fallbacks'
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

const DAY = 86_400_000
let world: World
let people: Who[]
let section: number
let other: number
let otherCode: SectionCode
beforeAll(async () => {
  world = await openWorld('lines')
  const [row, second] = await sectionsNumbered(world, LANGUAGE, '01', '02')
  section = row!.id
  other = second!.id
  otherCode = second!.code as SectionCode
  people = await newcomers(world, 6)
  for (const who of people) await pickFor(world, who, LANGUAGE, '01')
})
afterAll(() => world.close())

/** Two seats and a line of four, with the first two people in the seats. */
beforeEach(async () => {
  const { db } = world
  const clear = [t.fallback, t.offeredSeat, t.seatOffer, t.waitlistPlace, t.receiptLine, t.receipt]
  for (const table of clear) await db.delete(table)
  await db.delete(t.registration).where(inArray(t.registration.sectionId, [section, other]))
  await db.update(t.section).set({ taken: 0 }).where(eq(t.section.id, other))
  await db.delete(t.hold)
  await db
    .update(t.section)
    .set({ capacity: 2, taken: 0, offered: 0, waiting: 0, waitCapacity: 4 })
    .where(eq(t.section.id, section))
  await db.update(t.term).set({ waitlistPolicy: 'offer' }).where(eq(t.term.code, AUTUMN))
  await setTime(world, OPENS)
  for (const who of people.slice(0, 2)) {
    if (!(await picked(who))) await pickFor(world, who, LANGUAGE, '01')
    expect(outcomes(await go(who, { courses: [LANGUAGE] }))).toEqual(['registered'])
  }
})

async function picked(who: Who): Promise<boolean> {
  const [studentRecord] = await readStudentRecords(world.db, [idOf(who)], 'self')
  return studentRecord!.drafts.some((draft) => draft.sections.length > 0)
}
const go = (who: Who, asked: Partial<RunAsked>) =>
  run(world.db, who, idOf(who), { term: AUTUMN, courses: [], ...asked }, world.catalogContext)
const outcomes = ({ lines }: Receipt) => lines.map((line) => line.outcome)
const fallbacks = async (who: Who, list: Fallback[]) => {
  const when = await at(world)
  await within(world, (tx) =>
    writeFallbacks(
      tx,
      { who, student: idOf(who), ...when },
      { term: AUTUMN, course: LANGUAGE, list, onlyWith: null, givingUp: null, credits: null, note: null }
    )
  )
}
async function join(who: Who): Promise<Receipt> {
  await fallbacks(who, [{ kind: 'line' }])
  return go(who, { courses: [LANGUAGE] })
}
const serve = () => serveAllLines(world.db, world.catalogContext)
const seats = async () => {
  const [row] = await world.db
    .select({ taken: t.section.taken, offered: t.section.offered, waiting: t.section.waiting })
    .from(t.section)
    .where(eq(t.section.id, section))
  return row
}
const studentRecord = async (who: Who) => (await readStudentRecords(world.db, [idOf(who)], 'self'))[0]!
const offerOf = async (who: Who) => (await studentRecord(who)).offers[0]
const holds = async (who: Who) => (await studentRecord(who)).held.some((seat) => seat.course === LANGUAGE)
const answer = async (who: Who, given: 'accept' | 'decline', key?: string) =>
  answerOffer(
    world.db,
    who,
    idOf(who),
    (await offerOf(who))!.id,
    { answer: given, givingUp: [], key },
    world.catalogContext
  )

const placeHold = (who: Who) =>
  world.db.insert(t.hold).values({
    studentId: idOf(who),
    title: 'Library fine',
    office: 'Library desk',
    amount: 5,
    stopsRegistration: true,
    howToLift: 'Pay it.',
    placedAt: new Date(OPENS)
  } as never)

describe('a place in line', () => {
  it('is taken only where that was asked, and says which', async () => {
    expect(outcomes(await go(people[2]!, { courses: [LANGUAGE] }))).toEqual(['refused'])
    expect((await join(people[2]!)).lines).toMatchObject([{ outcome: 'inLine', place: 1 }])
    expect((await join(people[3]!)).lines).toMatchObject([{ outcome: 'inLine', place: 2 }])
    expect((await studentRecord(people[3]!)).waiting).toMatchObject([{ course: LANGUAGE, place: 2, of: 2 }])
    expect(await seats()).toEqual({ taken: 2, offered: 0, waiting: 2 })
  })
  it('is one a course, and is given up without a trace', async () => {
    await join(people[2]!)
    const again = await join(people[2]!)
    expect(again.lines[0]!.refusals.map((refusal) => refusal.code)).toEqual(['full'])
    expect(outcomes(await go(people[2]!, { leave: [LANGUAGE] }))).toEqual(['left'])
    expect(await seats()).toEqual({ taken: 2, offered: 0, waiting: 0 })
    expect((await go(people[2]!, { leave: [LANGUAGE] })).lines[0]).toMatchObject({
      outcome: 'refused',
      refusals: [{ code: 'notInLine' }]
    })
  })
  it('is the last one once, whoever asks at the same time', async () => {
    await world.db.update(t.section).set({ waitCapacity: 1 }).where(eq(t.section.id, section))
    const both = await Promise.all([join(people[2]!), join(people[3]!)])
    expect(both.flatMap(outcomes).sort()).toEqual(['inLine', 'refused'])
    expect(await seats()).toEqual({ taken: 2, offered: 0, waiting: 1 })
  })
})

describe('a permission for a full section', () => {
  const permit = (who: Who, until: number | null) =>
    world.db.insert(t.request).values({
      studentId: idOf(who),
      sectionId: section,
      kind: 'full',
      state: 'given',
      reason: 'A transfer.',
      askedAt: new Date(OPENS),
      waitsFor: 'registrar',
      until: until === null ? null : new Date(until)
    })
  const counts = async () =>
    (
      await world.db
        .select({ capacity: t.section.capacity, taken: t.section.taken, waiting: t.section.waiting })
        .from(t.section)
        .where(eq(t.section.id, section))
    )[0]
  afterEach(() => world.db.delete(t.request))

  it('adds a seat for its student, and nobody in line loses one', async () => {
    await join(people[3]!)
    await permit(people[2]!, null)
    expect(outcomes(await go(people[2]!, { courses: [LANGUAGE] }))).toEqual(['registered'])
    expect(await counts()).toEqual({ capacity: 3, taken: 3, waiting: 1 })
    const added = await world.db
      .select({ after: t.eventLog.after })
      .from(t.eventLog)
      .where(all(eq(t.eventLog.action, 'section.seatAdded'), eq(t.eventLog.studentId, idOf(people[2]!))))
    expect(added).toMatchObject([{ after: { course: LANGUAGE, capacity: 3 } }])
  })
  it('has ended at its instant', async () => {
    await permit(people[2]!, OPENS)
    expect((await go(people[2]!, { courses: [LANGUAGE] })).lines[0]!.refusals).toMatchObject([
      { code: 'full' }
    ])
    expect(await counts()).toMatchObject({ capacity: 2, taken: 2 })
  })
})

describe('fallbacks', () => {
  const instead = (): Fallback => ({ kind: 'sections', sections: [otherCode] })
  it('are tried in their order where the first choice is refused, and say what stood in its way', async () => {
    await fallbacks(people[2]!, [instead(), { kind: 'line' }])
    const { lines } = await go(people[2]!, { courses: [LANGUAGE] })
    expect(lines).toMatchObject([
      { outcome: 'registered', fallback: 1, sections: [otherCode], refusals: [{ code: 'full' }] }
    ])
    expect(await seats()).toEqual({ taken: 2, offered: 0, waiting: 0 })
    await fallbacks(people[3]!, [{ kind: 'line' }, instead()])
    expect((await go(people[3]!, { courses: [LANGUAGE] })).lines).toMatchObject([
      { outcome: 'inLine', fallback: 1, place: 1 }
    ])
  })
  it('are passed over where they are refused as well', async () => {
    const [row] = await world.db.select().from(t.section).where(eq(t.section.id, other))
    await world.db.update(t.section).set({ taken: row!.capacity }).where(eq(t.section.id, other))
    await fallbacks(people[2]!, [instead(), { kind: 'line' }])
    const { lines } = await go(people[2]!, { courses: [LANGUAGE] })
    expect(lines).toMatchObject([{ outcome: 'inLine', fallback: 2 }])
    await fallbacks(people[3]!, [instead()])
    expect((await go(people[3]!, { courses: [LANGUAGE] })).lines).toMatchObject([
      { outcome: 'refused', fallback: null, refusals: [{ code: 'full' }] }
    ])
  })
  it('are left alone where the first choice goes through', async () => {
    await go(people[0]!, { drop: [LANGUAGE] })
    await fallbacks(people[2]!, [instead()])
    expect((await go(people[2]!, { courses: [LANGUAGE] })).lines).toMatchObject([
      { outcome: 'registered', fallback: null, refusals: [] }
    ])
  })
  it('may be another course, which the receipt tells as taken in place of the first', async () => {
    const [music] = await sectionsNumbered(world, 'MUSI 102', '01')
    await fallbacks(people[2]!, [{ kind: 'sections', sections: [music!.code as SectionCode] }])
    const key = 'in place of another course'
    const receipt = await go(people[2]!, { courses: [LANGUAGE], key })
    expect(receipt.lines).toMatchObject([
      {
        course: 'MUSI 102',
        insteadOf: LANGUAGE,
        outcome: 'registered',
        fallback: 1,
        sections: [music!.code],
        refusals: [{ code: 'full' }]
      }
    ])
    // Asked for again, it is the same run; and what is written agrees.
    expect(await go(people[2]!, { courses: [LANGUAGE], key })).toEqual(receipt)
    expect(await holds(people[2]!)).toBe(false)
    const wrong = await disagreements(world.db)
    expect(wrong.filter((text) => text.includes(`${idOf(people[2]!)} AU27 MUSI 102`))).toEqual([])
    await go(people[2]!, { drop: [courseCode('MUSI 102')] })
  })
  it('are within the course while a seat of it is held', async () => {
    const [music] = await sectionsNumbered(world, 'MUSI 102', '01')
    await expect(
      fallbacks(people[0]!, [{ kind: 'sections', sections: [music!.code as SectionCode] }])
    ).rejects.toMatchObject({ status: 422, code: 'heldAlready' })
    await expect(
      fallbacks(people[2]!, [{ kind: 'sections', sections: [music!.code as SectionCode, otherCode] }])
    ).rejects.toMatchObject({ status: 422, code: 'noOption' })
  })
  it('are sections that are one choice of a course', async () => {
    const [foreign] = await sectionsNumbered(world, 'SOIL 220', '01')
    await expect(
      fallbacks(people[2]!, [{ kind: 'sections', sections: [foreign!.code as SectionCode] }])
    ).rejects.toMatchObject({ status: 422, code: 'noOption' })
  })
})

describe('a seat that is given back', () => {
  beforeEach(async () => {
    await join(people[2]!)
    await join(people[3]!)
  })
  it('is kept for the line at once, and offered to the first', async () => {
    expect(outcomes(await go(people[0]!, { drop: [LANGUAGE] }))).toEqual(['dropped'])
    // The run itself serves nobody: a server that ends here has lost nothing.
    expect(await seats()).toEqual({ taken: 1, offered: 1, waiting: 2 })
    expect(outcomes(await go(people[4]!, { courses: [LANGUAGE] }))).toEqual(['refused'])
    await serve()
    expect(await offerOf(people[2]!)).toMatchObject({ course: LANGUAGE, until: OPENS + 2 * DAY })
    expect(await offerOf(people[3]!)).toBeUndefined()
    expect(await seats()).toEqual({ taken: 1, offered: 1, waiting: 2 })
  })
  it('is offered once, by however many servers', async () => {
    await go(people[0]!, { drop: [LANGUAGE] })
    await Promise.all([serve(), serve(), serve()])
    expect(await world.db.select().from(t.seatOffer)).toHaveLength(1)
    await go(people[1]!, { drop: [LANGUAGE] })
    await Promise.all([serve(), serve()])
    expect(await world.db.select().from(t.seatOffer)).toHaveLength(2)
    expect(await seats()).toEqual({ taken: 0, offered: 2, waiting: 2 })
  })
  it('is taken with one answer, given once for its key', async () => {
    await go(people[0]!, { drop: [LANGUAGE] })
    await serve()
    const offer = (await offerOf(people[2]!))!
    const accept = () =>
      answerOffer(
        world.db,
        people[2]!,
        idOf(people[2]!),
        offer.id,
        { answer: 'accept', givingUp: [], key: 'the-same-answer' },
        world.catalogContext
      )
    const [one, other] = await Promise.all([accept(), accept()])
    expect(one.id).toBe(other.id)
    expect(one.lines).toMatchObject([{ action: 'offer', outcome: 'registered' }])
    expect(await seats()).toEqual({ taken: 2, offered: 0, waiting: 1 })
    expect(await holds(people[2]!)).toBe(true)
  })
  it('goes to the next where the offer is declined, left or lapses, and is free after the last', async () => {
    await go(people[0]!, { drop: [LANGUAGE] })
    await serve()
    expect(outcomes(await answer(people[2]!, 'decline'))).toEqual(['declined'])
    await serve()
    expect(await offerOf(people[3]!)).toBeDefined()
    await setTime(world, OPENS + 2 * DAY - 1)
    await serve()
    expect(await offerOf(people[3]!)).toBeDefined()
    await setTime(world, OPENS + 2 * DAY)
    await serve()
    expect(await offerOf(people[3]!)).toBeUndefined()
    expect(await seats()).toEqual({ taken: 1, offered: 0, waiting: 0 })
    expect(outcomes(await go(people[4]!, { courses: [LANGUAGE] }))).toEqual(['registered'])
  })
  it('cannot be taken at the very moment at which the offer ends', async () => {
    await go(people[0]!, { drop: [LANGUAGE] })
    await serve()
    await setTime(world, OPENS + 2 * DAY)
    const late = await answer(people[2]!, 'accept')
    expect(late.lines).toMatchObject([{ outcome: 'refused', refusals: [{ code: 'offerEnded' }] }])
    expect(await holds(people[2]!)).toBe(false)
  })
  it('is not offered to somebody whom a hold stops, who keeps their place', async () => {
    await placeHold(people[2]!)
    await go(people[0]!, { drop: [LANGUAGE] })
    await serve()
    expect(await offerOf(people[2]!)).toBeUndefined()
    expect(await offerOf(people[3]!)).toBeDefined()
    expect((await studentRecord(people[2]!)).waiting).toMatchObject([{ place: 1 }])
  })
  it('that was free because nobody might take it is offered as soon as somebody may', async () => {
    for (const who of [people[2]!, people[3]!]) await placeHold(who)
    await go(people[0]!, { drop: [LANGUAGE] })
    await serve()
    expect(await seats()).toEqual({ taken: 1, offered: 0, waiting: 2 })
    await world.db.delete(t.hold).where(eq(t.hold.studentId, idOf(people[3]!)))
    await serve()
    expect(await offerOf(people[3]!)).toBeDefined()
    expect(await seats()).toEqual({ taken: 1, offered: 1, waiting: 2 })
  })
  it('is moved into at once where the term says so', async () => {
    await world.db.update(t.term).set({ waitlistPolicy: 'automatic' }).where(eq(t.term.code, AUTUMN))
    await go(people[0]!, { drop: [LANGUAGE] })
    await serve()
    expect(await holds(people[2]!)).toBe(true)
    expect(await seats()).toEqual({ taken: 2, offered: 0, waiting: 1 })
  })
  it('is free where the lines have closed', async () => {
    const [row] = await world.db.select().from(t.term).where(eq(t.term.code, AUTUMN))
    await setTime(world, row!.linesCloseAt.getTime())
    await go(people[0]!, { drop: [LANGUAGE] })
    await serve()
    expect(await offerOf(people[2]!)).toBeUndefined()
    expect(await seats()).toEqual({ taken: 1, offered: 0, waiting: 2 })
  })
})

describe('the key of an answer', () => {
  it('that was given to a run is refused, and the offer stays open', async () => {
    await join(people[2]!)
    const key = 'a-key-of-a-run'
    await go(people[2]!, { leave: [LANGUAGE], key })
    await join(people[2]!)
    await go(people[0]!, { drop: [LANGUAGE] })
    await serve()
    await expect(answer(people[2]!, 'accept', key)).rejects.toMatchObject({ status: 422 })
    expect(await offerOf(people[2]!)).toBeDefined()
    expect(outcomes(await answer(people[2]!, 'accept', 'a-key-of-its-own'))).toEqual(['registered'])
  })
})

describe('a drop', () => {
  const recordOf = (who: Who) =>
    world.db
      .select({ grade: t.recordCourse.grade })
      .from(t.recordCourse)
      .innerJoin(t.course, eq(t.course.id, t.recordCourse.courseId))
      .where(sql`${t.recordCourse.studentId} = ${idOf(who)} and ${t.course.code} = ${LANGUAGE}`)
  it('is no more picked, so that no later run takes it again', async () => {
    await go(people[0]!, { drop: [LANGUAGE] })
    expect(await picked(people[0]!)).toBe(false)
    expect(outcomes(await go(people[0]!, { courses: [LANGUAGE] }))).toEqual(['unsettled'])
  })
  it('leaves nothing on the record at first, then a W, then is refused', async () => {
    const [row] = await world.db.select().from(t.term).where(eq(t.term.code, AUTUMN))
    await setTime(world, row!.dropFreeEndsAt.getTime())
    expect((await go(people[0]!, { drop: [LANGUAGE] })).lines).toMatchObject([
      { outcome: 'dropped', mark: 'W' }
    ])
    expect(await recordOf(people[0]!)).toEqual([{ grade: 'W' }])
    await setTime(world, row!.dropEndsAt.getTime())
    const late = await go(people[1]!, { drop: [LANGUAGE] })
    expect(late.lines).toMatchObject([{ outcome: 'refused', refusals: [{ code: 'dropEnded' }] }])
    expect(await holds(people[1]!)).toBe(true)
    await world.db.delete(t.recordCourse).where(inArray(t.recordCourse.grade, ['W']))
  })
  it('is one run for its key, however often it is asked for', async () => {
    const asked = { drop: [LANGUAGE], key: 'drop-it-once' }
    const [one, other] = await Promise.all([go(people[0]!, asked), go(people[0]!, asked)])
    expect(one.id).toBe(other.id)
    expect(outcomes(other)).toEqual(['dropped'])
    expect(await seats()).toEqual({ taken: 1, offered: 0, waiting: 0 })
  })
})
