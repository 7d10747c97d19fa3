/** The offer of a term as those who plan it change it: seats more or fewer, and another section like one that is there. */
import { asc, eq, or } from 'drizzle-orm'
import { formatDayLetters } from '#core/formats'
import type { CourseCode, TermCode } from '#core/ids'
import { clashOf } from '#core/week'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { termRow } from '#server/features/catalog/catalog'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import { momentOf, type Shelf } from '#shared/catalog/shelf'
import type { OfferedCourse } from '#shared/sections/offering'
import type { SectionAdded } from '#shared/sections/requests'
import { bestHours } from './bestHours'
import { holidaysOf, lockWanted, mustBeFree, mustSeat, NOWHERE } from './clashes'
import { freeCodes } from './codes'
import { coursesPlannedBy } from './demand'
import { offerOf } from './sections'

/** @throws Refused where the course is of another department's */
export async function mustPlan(db: Reader, who: Pick<Who, 'id' | 'role'>, course: string): Promise<void> {
  const own = await coursesPlannedBy(db, who)
  if (!own.some((one) => one.code === course))
    throw new Refused(403, 'notYours', `The offer of ${course} is for another department to plan.`)
}

/** A course's sections in a term, with what may be chosen for another one. */
export async function readOffered(
  db: Reader,
  who: Pick<Who, 'id' | 'role'>,
  { term, course }: { term: TermCode; course: CourseCode }
): Promise<OfferedCourse> {
  await mustPlan(db, who, course)
  await termRow(db, term)
  const sections = (await offerOf(db, term, [course])).filter((one) => !one.cancelled)
  const rooms = await db
    .select({
      id: t.room.id,
      room: t.room.name,
      building: t.building.name,
      seats: t.room.seats,
      campus: t.campus.code
    })
    .from(t.room)
    .innerJoin(t.building, eq(t.building.id, t.room.buildingId))
    .innerJoin(t.campus, eq(t.campus.id, t.building.campusId))
    .orderBy(asc(t.building.name), asc(t.room.name))
  const instructors = await db
    .select({ id: t.instructor.id, name: t.instructor.name })
    .from(t.instructor)
    .orderBy(asc(t.instructor.name))
  return {
    sections,
    rooms: rooms.map(({ room, building, ...one }) => ({ ...one, name: `${building} ${room}` })),
    instructors,
    ...(await bestHours(db, { term, course }, sections))
  }
}

interface Known {
  section: typeof t.section.$inferSelect
  course: string
  term: typeof t.term.$inferSelect
}

async function lockKnown(tx: Transaction, who: Who, code: string): Promise<Known> {
  const [found] = await tx
    .select({ section: t.section, course: t.course.code, term: t.term })
    .from(t.section)
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(eq(t.section.code, code))
  if (!found) throw new Refused(404, 'noSection', `There is no section ${code}.`)
  await mustPlan(tx, who, found.course)
  const [locked] = await tx.select().from(t.section).where(eq(t.section.id, found.section.id)).for('update')
  return { ...found, section: locked! }
}

function mustNotBeOver(
  { name, endsOn }: { name: string; endsOn: string },
  now: number,
  { zone }: Shelf
): void {
  if (momentOf(now, zone).today > endsOn)
    throw new Refused(422, 'termOver', `${name} is over; its sections are not changed any more.`, [
      { field: 'section', message: 'has to be a section of a term that is not over' }
    ])
}

/**
 * Gives a section so many seats. What is taken or offered stays; more seats go to those in line first.
 *
 * @throws Refused for fewer than are taken, or more than its room has
 * @returns the term
 */
export async function setSeats(
  tx: Transaction,
  who: Who,
  code: string,
  seats: number,
  { shelf, now }: { shelf: Shelf; now: number }
): Promise<string> {
  const { section, course, term } = await lockKnown(tx, who, code)
  mustNotBeOver(term, now, shelf)
  if (section.cancelled) throw new Refused(409, 'cancelled', `Section ${code} is cancelled.`)
  const taken = section.taken + section.offered
  if (seats < taken)
    throw new Refused(422, 'seatsTaken', `${taken} seats of ${code} are taken or offered.`, [
      { field: 'seats', message: `has to be at least ${taken}` }
    ])
  const rooms = await tx
    .select({ name: t.room.name, building: t.building.name, seats: t.room.seats })
    .from(t.meeting)
    .innerJoin(t.room, eq(t.room.id, t.meeting.roomId))
    .innerJoin(t.building, eq(t.building.id, t.room.buildingId))
    .where(eq(t.meeting.sectionId, section.id))
  if (seats > section.capacity) for (const room of rooms) mustSeat(room, seats)
  await tx.update(t.section).set({ capacity: seats }).where(eq(t.section.id, section.id))
  await logEvent(tx, {
    ...{ at: now, account: who.id, student: null, action: 'section.seatsChanged' },
    before: { term: term.code, course, section: code, capacity: section.capacity },
    after: { term: term.code, course, section: code, capacity: seats }
  })
  return term.code
}

/**
 * Adds a section like another one of the same term, with parts at hours of their own.
 *
 * @throws Refused where a part is missing, or a room or an instructor is taken at these hours
 * @returns the code of the new section, and its term
 */
export async function addSection(
  tx: Transaction,
  who: Who,
  like: string,
  said: SectionAdded,
  { shelf, now }: { shelf: Shelf; now: number }
): Promise<{ code: string; term: string }> {
  const { section, course, term } = await lockKnown(tx, who, like)
  mustNotBeOver(term, now, shelf)
  const family = await tx
    .select()
    .from(t.section)
    .where(or(eq(t.section.id, section.id), eq(t.section.parentId, section.id))!)
    .orderBy(asc(t.section.id))
  const parts = mustHaveParts(section, family, said)
  const [session] = await tx.select().from(t.session).where(eq(t.session.id, section.sessionId))
  const dates = { from: session!.startsOn, to: session!.endsOn }
  const made = parts.map(({ part }) => ({
    ...{ days: part.days, start: part.start, end: part.end, ...dates, ...NOWHERE }
  }))
  const holidays = holidaysOf(shelf, term.code)
  for (const [i, one] of made.entries())
    for (const other of made.slice(i + 1))
      if (clashOf(one, other, holidays))
        throw new Refused(422, 'ownClash', 'The parts of the section would clash with one another.', [
          { field: 'parts', message: 'have to be at different hours' }
        ])
  await lockWanted(tx, said)
  const instructors = said.instructor === null ? [] : [said.instructor]
  for (const [i, { part }] of parts.entries())
    await mustBeFree(tx, term, made[i]!, { room: part.room, instructors, holidays })
  // Whoever adds to the course at the same time waits here.
  await tx.select({ id: t.course.id }).from(t.course).where(eq(t.course.id, section.courseId)).for('update')
  const numbers = await tx
    .select({ number: t.section.number })
    .from(t.section)
    .where(all(eq(t.section.termId, term.id), eq(t.section.courseId, section.courseId)))
  const number = nextNumber(numbers.map((row) => row.number))
  const codes = await freeCodes(tx, parts.length)
  let parent: number | null = null
  let first = ''
  for (const [i, { row, part }] of parts.entries()) {
    const { id: _, ...copied } = row
    const code = codes[i]!
    const [inserted] = await tx
      .insert(t.section)
      .values({
        ...copied,
        ...{ code, number: i ? `${number}${String.fromCharCode(64 + i)}` : number, parentId: parent },
        ...{ capacity: part.seats, taken: 0, offered: 0, takenFormerly: 0, waiting: 0 },
        ...{ blockId: null, officeOnly: false, cancelled: false }
      })
      .$returningId()
    await tx.insert(t.meeting).values({
      ...{
        sectionId: inserted!.id,
        days: formatDayLetters(part.days),
        startsMin: part.start,
        endsMin: part.end
      },
      ...{ fromOn: dates.from, toOn: dates.to, roomId: part.room }
    })
    if (said.instructor !== null)
      await tx.insert(t.sectionInstructor).values({ sectionId: inserted!.id, instructorId: said.instructor })
    if (!i) [parent, first] = [inserted!.id, code]
  }
  const after = { term: term.code, course, section: first, like, capacity: parts[0]!.part.seats }
  await logEvent(tx, { at: now, account: who.id, student: null, action: 'section.added', after })
  return { code: first, term: term.code }
}

/** The section itself first, then a component of each kind that it has. */
function mustHaveParts(
  main: typeof t.section.$inferSelect,
  family: readonly (typeof t.section.$inferSelect)[],
  { parts }: SectionAdded
) {
  const found = parts.map((part) => ({ part, row: family.find((one) => one.code === part.of) }))
  const own = found.flatMap(({ part, row }) => (row ? [{ part, row }] : []))
  const kinds = new Set(
    family.filter((one) => one.parentId !== null && !one.cancelled).map((one) => one.kind)
  )
  const isWhole = [...kinds].every((kind) =>
    own.some(({ row }) => row.parentId !== null && row.kind === kind)
  )
  const mains = own.filter(({ row }) => row.id === main.id)
  if (main.parentId !== null || own.length < found.length || mains.length !== 1 || !isWhole)
    throw new Refused(422, 'parts', 'A section is added with each kind of its parts.', [
      { field: 'parts', message: `have to be ${main.code} once, and each kind of its components` }
    ])
  return [...mains, ...own.filter(({ row }) => row.id !== main.id)]
}

/** One above the highest number there is. */
function nextNumber(numbers: readonly string[]): string {
  const highest = Math.max(0, ...numbers.map((one) => Number.parseInt(one, 10) || 0))
  return String(highest + 1).padStart(2, '0')
}
