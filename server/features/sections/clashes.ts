/** Rooms and instructors of a term: each is at one place at a time. */
import { eq, inArray } from 'drizzle-orm'
import { parseDayLetters } from '#core/formats'
import type { TermCode } from '#core/ids'
import { dayNumber } from '#core/time'
import { clashOf, type Holidays, type Meeting } from '#core/week'
import { all, type Reader, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { Refused } from '#server/http/problem'
import { termOf, type CatalogContext } from '#shared/catalog/context'
import { DAY_NAMES, hours } from '#shared/when'

export const holidaysOf = (catalogContext: CatalogContext, term: string): Holidays =>
  new Set(termOf(catalogContext, term as TermCode).holidays.map((one) => dayNumber(one.date)))

interface Wanted {
  room: number | null
  instructors: readonly number[]
  holidays: Holidays
  /** The section that is moved: it is not in its own way. */
  moved?: number
}

/** A room and an instructor are at one place at a time. @throws Refused that names who is there */
export async function mustBeFree(
  tx: Transaction,
  term: { id: number },
  meeting: Meeting,
  { room, instructors, holidays, moved }: Wanted
): Promise<void> {
  const inTheWay = async (which: ReturnType<typeof eq>) =>
    (await meetingsOf(tx, term.id, which)).find(
      (one) => one.id !== moved && clashOf(meeting, one.meeting, holidays)
    )
  if (room !== null) {
    const other = await inTheWay(eq(t.meeting.roomId, room))
    if (other)
      throw new Refused(
        409,
        'roomTaken',
        `The room is taken by ${whereText(other)}. Name another, or none yet.`,
        [{ field: 'room', message: `has to be free: ${whereText(other)} is there` }]
      )
  }
  for (const instructor of instructors) {
    const theirs = tx
      .select({ id: t.sectionInstructor.sectionId })
      .from(t.sectionInstructor)
      .where(eq(t.sectionInstructor.instructorId, instructor))
    const other = await inTheWay(inArray(t.meeting.sectionId, theirs))
    if (other)
      throw new Refused(409, 'instructorTaken', `The instructor teaches ${whereText(other)} then.`, [
        { field: 'instructor', message: `has to be free: they teach ${whereText(other)}` }
      ])
  }
}

/** The rooms and instructors named, locked: whoever asks for one at the same time waits. @throws Refused */
export async function lockWanted(
  tx: Transaction,
  {
    parts,
    instructors
  }: { parts: readonly { room: number | null; seats: number }[]; instructors: readonly number[] }
): Promise<void> {
  for (const { room, seats } of [...parts].sort((a, b) => (a.room ?? 0) - (b.room ?? 0))) {
    if (room === null) continue
    const [known] = await tx
      .select({ name: t.room.name, building: t.building.name, seats: t.room.seats })
      .from(t.room)
      .innerJoin(t.building, eq(t.building.id, t.room.buildingId))
      .where(eq(t.room.id, room))
      .for('update')
    if (!known)
      throw new Refused(422, 'noRoom', 'There is no such room.', [
        { field: 'parts', message: 'have to be in a room that there is, or in none' }
      ])
    mustSeat(known, seats)
  }
  for (const instructor of [...instructors].sort((a, b) => a - b)) {
    const [known] = await tx.select().from(t.instructor).where(eq(t.instructor.id, instructor)).for('update')
    if (!known)
      throw new Refused(422, 'noInstructor', 'There is no such instructor.', [
        { field: 'instructor', message: 'has to be an instructor that there is, or left out' }
      ])
  }
}

/** The same for a section that moves to other hours, in the room and with those who teach it. @throws Refused */
export async function mustStayFree(
  tx: Transaction,
  section: { id: number; term: { id: number; code: string } },
  hours: Pick<Meeting, 'days' | 'start' | 'end' | 'from' | 'to'>,
  { room, catalogContext }: { room: number | null; catalogContext: CatalogContext }
): Promise<void> {
  const teaching = await tx
    .select({ id: t.sectionInstructor.instructorId })
    .from(t.sectionInstructor)
    .where(eq(t.sectionInstructor.sectionId, section.id))
  await mustBeFree(
    tx,
    section.term,
    { ...hours, ...NOWHERE },
    {
      ...{ room, instructors: teaching.map((one) => one.id), moved: section.id },
      holidays: holidaysOf(catalogContext, section.term.code)
    }
  )
}

export const NOWHERE = { campus: '', building: null, room: null }

export function mustSeat(room: { name: string; building: string; seats: number }, seats: number): void {
  if (seats > room.seats)
    throw new Refused(422, 'roomTooSmall', `${room.building} ${room.name} has ${room.seats} places.`, [
      { field: 'seats', message: `has to be ${room.seats} or less in ${room.building} ${room.name}` }
    ])
}

interface Placed {
  id: number
  course: string
  number: string
  code: string
  meeting: Meeting
}

/** Meetings of sections of a term that are held. */
async function meetingsOf(db: Reader, term: number, which: ReturnType<typeof eq>): Promise<Placed[]> {
  const rows = await db
    .select({
      meeting: t.meeting,
      id: t.section.id,
      course: t.course.code,
      number: t.section.number,
      code: t.section.code
    })
    .from(t.meeting)
    .innerJoin(t.section, eq(t.section.id, t.meeting.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .where(all(eq(t.section.termId, term), eq(t.section.cancelled, false), which))
  return rows.map(({ meeting, ...of }) => ({
    ...of,
    meeting: {
      ...{ days: parseDayLetters(meeting.days) ?? [], start: meeting.startsMin, end: meeting.endsMin },
      ...{ from: meeting.fromOn, to: meeting.toOn, ...NOWHERE }
    }
  }))
}

/** `ENDA 310 01 (Tue Thu, 9:30–10:45)` */
const whereText = ({ course, number, meeting: { days, start, end } }: Placed) =>
  `${course} ${number} (${days.map((day) => DAY_NAMES[day]).join(' ')}, ${hours(start, end)})`
