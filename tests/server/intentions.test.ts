/** What is meant for a term: handed in until its day, told to those who plan it, and what became of it. */
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { termCode, type CourseCode } from '#core/ids'
import type { Who } from '#shared/accounts/responses'
import * as t from '#server/db/schema/index'
import { handIn, takeBack } from '#server/features/route/intentions'
import { readDemand } from '#server/features/sections/demand'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { readCatalogContext } from '#server/features/catalog/context'
import { shortOf } from '#shared/sections/demand'
import { whatBecame } from '#shared/route/intentions'
import { thingsToDo } from '#shared/today/todo'
import { readStudent } from '#shared/reading'
import { at, AUTUMN, demoWorld, idOf, person, setTime, within, type World } from './world'

const SPRING = termCode('SP28')
let world: World
let imke: Who
let edda: Who & { id: number }
let tamsin: Who & { id: number }
beforeAll(async () => {
  world = await demoWorld('intentions')
  imke = await person(world.db, 'Imke Varga')
  edda = await person(world.db, 'Edda Whitlock')
  tamsin = await person(world.db, 'Tamsin Orford')
  await world.db.delete(t.intention)
})
afterAll(() => world.close())

const record = async () => (await readStudentRecords(world.db, [idOf(imke)], 'self'))[0]!
const doing = async () => ({ who: imke, student: idOf(imke), ...(await at(world)) })
async function hand(term = SPRING) {
  const now = await doing()
  return within(world, (tx) => handIn(tx, now, term))
}
async function back(term = SPRING) {
  const now = await doing()
  return within(world, (tx) => takeBack(tx, now, term))
}
const demandOf = async (course: string, who = edda) =>
  (await readDemand(world.db, who, SPRING, (await at(world)).now)).find((one) => one.course === course)
const tasks = async () => {
  const { now } = await at(world)
  const studentRecord = await record()
  const reading = readStudent(studentRecord, world.catalogContext, now)
  return thingsToDo({
    studentRecord,
    reading,
    catalogContext: world.catalogContext,
    work: undefined,
    now
  }).map((one) => one.id)
}

describe('what is meant for a term', () => {
  it('is what is planned for it, once, and can be taken back', async () => {
    const planned = (await record()).route.courses
      .filter((one) => one.term === SPRING)
      .map((one) => one.course)
      .sort()
    expect(planned.length).toBeGreaterThan(1)
    await hand()
    await hand()
    expect((await record()).intentions).toMatchObject([{ term: SPRING, courses: planned }])
    expect(await demandOf(planned[0]!)).toMatchObject({ handedIn: 1 })
    await back()
    expect((await record()).intentions).toEqual([])
    expect(await demandOf(planned[0]!)).toMatchObject({ handedIn: 0 })
    await expect(back()).rejects.toMatchObject({ status: 409, code: 'nothingHandedIn' })
  })
  it('is on Today near its day, until it is handed in', async () => {
    const due = world.catalogContext.terms.find((one) => one.code === SPRING)!.intentionsDueAt!
    expect(await tasks()).not.toContain('intentions SP28')
    await setTime(world, due - 3 * 86_400_000)
    expect(await tasks()).toContain('intentions SP28')
    await hand()
    expect(await tasks()).not.toContain('intentions SP28')
  })
  it('is taken until the instant that the term names, and never once its sections are published', async () => {
    const due = world.catalogContext.terms.find((one) => one.code === SPRING)!.intentionsDueAt!
    await setTime(world, due - 1)
    await hand()
    await setTime(world, due)
    await expect(hand()).rejects.toMatchObject({ status: 422, code: 'notHandedIn' })
    await expect(back()).rejects.toMatchObject({ status: 422, code: 'notHandedIn' })
    await expect(hand(AUTUMN)).rejects.toMatchObject({
      message: 'The sections of Autumn 2027 are published; pick them on Week.'
    })
    await expect(hand(termCode('SU28'))).rejects.toMatchObject({ code: 'notHandedIn' })
  })
  it('needs a planned course', async () => {
    await setTime(world, Date.parse('2027-04-09T13:40:00Z'))
    await within(world, (tx) =>
      tx
        .update(t.term)
        .set({ intentionsDueAt: new Date('2029-01-01') })
        .where(eq(t.term.code, 'SP30'))
    )
    await expect(hand(termCode('SP30'))).rejects.toMatchObject({ code: 'nothingPlanned' })
  })
})

describe('demand', () => {
  it('counts each student once, planned or registered, and of a department only its own', async () => {
    const all = await readDemand(world.db, edda, AUTUMN, (await at(world)).now)
    const own = await readDemand(world.db, tamsin, AUTUMN, (await at(world)).now)
    expect(own.length).toBeGreaterThan(0)
    expect(own.length).toBeLessThan(all.length)
    expect(all).toEqual(expect.arrayContaining(own))
    // From the rows themselves, by another way.
    const wanting = await world.db
      .selectDistinct({ student: t.route.studentId })
      .from(t.plannedCourse)
      .innerJoin(t.route, eq(t.route.id, t.plannedCourse.routeId))
      .innerJoin(t.course, eq(t.course.id, t.plannedCourse.courseId))
      .innerJoin(t.term, eq(t.term.id, t.plannedCourse.termId))
      .where(eq(t.course.code, 'STAT 212'))
      .then((rows) => rows.length)
    const stat = all.find((one) => one.course === 'STAT 212')!
    expect(stat.planned).toBeLessThanOrEqual(wanting)
    expect(stat.signedOff).toBeLessThanOrEqual(stat.planned)
    expect(stat.planned).toBeGreaterThan(0)
  })
  it('is short of what is planned or handed in beyond the seats', () => {
    const of = (handedIn: number, planned: number, seats: number | null) =>
      shortOf({
        course: 'STAT 212' as CourseCode,
        title: '',
        signedOff: 0,
        taken: 0,
        handedIn,
        planned,
        seats
      })
    expect(of(3, 30, 24)).toBe(6)
    expect(of(31, 30, 24)).toBe(7)
    expect(of(0, 20, 24)).toBe(0)
    expect(of(2, 3, null)).toBe(3)
  })
})

describe('what became of a course', () => {
  const spring = { code: SPRING, published: true }
  const course = 'STAT 212' as CourseCode
  const seat = (placedByOffice: boolean) => ({
    held: [{ term: SPRING, course, placedByOffice }],
    waiting: []
  })
  const nothing = { held: [], waiting: [] }
  it.each([
    ['registered', seat(false), spring, ['STAT 212']],
    ['placed', seat(true), spring, ['STAT 212']],
    ['inLine', { held: [], waiting: [{ term: SPRING, course }] }, spring, ['STAT 212']],
    ['offered', nothing, spring, ['STAT 212']],
    ['notOffered', nothing, spring, []],
    ['unknown', nothing, { ...spring, published: false }, []],
    ['registered', seat(false), { ...spring, published: false }, []]
  ] as const)('is %s', (expected, record, term, running) => {
    expect(whatBecame(course, term, new Set(running), record as never)).toBe(expected)
  })
  it('is known from the catalog once the term is published', async () => {
    const { running } = await readCatalogContext(world.db)
    expect(running.get(AUTUMN)?.has('STAT 212')).toBe(true)
    expect(running.get(SPRING)).toBeUndefined()
  })
})
