/** Sections with everything a week or a decision needs to know about them. */
import { asc, count, eq, exists, inArray, or, type SQL } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { parseDayLetters } from '#core/formats'
import { courseCode, termCode, type CourseCode, type SectionCode } from '#core/ids'
import type { ReservedSeats, Section } from '#core/week'
import { groupBy } from '#server/db/groupBy'
import { all, type Reader, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'

/** The rows of sections, and what stands beside each. */
function sectionRows(db: Reader, condition: SQL) {
  const parent = alias(t.section, 'parent')
  return db
    .select({
      section: t.section,
      course: t.course.code,
      courseFee: t.course.fee,
      term: t.term.code,
      session: t.session.code,
      half: t.session.half,
      campus: t.campus.code,
      parent: parent.code,
      block: t.block.title
    })
    .from(t.section)
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .innerJoin(t.session, eq(t.session.id, t.section.sessionId))
    .innerJoin(t.campus, eq(t.campus.id, t.section.campusId))
    .leftJoin(parent, eq(parent.id, t.section.parentId))
    .leftJoin(t.block, eq(t.block.id, t.section.blockId))
    .where(condition)
    .orderBy(t.course.code, t.section.number)
}

async function meetingsOf(db: Reader, ids: number[]) {
  const rows = await db
    .select({ meeting: t.meeting, room: t.room.name, building: t.building.name })
    .from(t.meeting)
    .leftJoin(t.room, eq(t.room.id, t.meeting.roomId))
    .leftJoin(t.building, eq(t.building.id, t.room.buildingId))
    .where(inArray(t.meeting.sectionId, ids))
  return groupBy(rows, (row) => row.meeting.sectionId)
}

async function instructorsOf(db: Reader, ids: number[]) {
  const rows = await db
    .select({ sectionId: t.sectionInstructor.sectionId, name: t.instructor.name })
    .from(t.sectionInstructor)
    .innerJoin(t.instructor, eq(t.instructor.id, t.sectionInstructor.instructorId))
    .where(inArray(t.sectionInstructor.sectionId, ids))
  return groupBy(rows, (row) => row.sectionId)
}

/** A section without who teaches it, when, and for whom seats are kept. */
function sectionOf({
  section: s,
  course,
  courseFee,
  term,
  session,
  half,
  campus,
  parent,
  block
}: Awaited<ReturnType<typeof sectionRows>>[number]): Omit<Section, 'instructors' | 'reserved' | 'meetings'> {
  return {
    code: s.code as SectionCode,
    course: courseCode(course),
    term: termCode(term),
    number: s.number,
    kind: s.kind,
    parent: parent as SectionCode | null,
    session,
    half,
    campus,
    offSite: s.offSite,
    mode: s.mode,
    credits: s.credits,
    creditsRange: s.creditsMost === null ? null : [s.credits, s.creditsMost],
    prerequisite: s.prerequisite,
    categories: s.categories,
    topic: s.topic,
    capacity: s.capacity,
    taken: takenOf(s),
    waitCapacity: s.waitCapacity,
    waiting: s.waiting,
    block,
    officeOnly: s.officeOnly,
    permissionNeeded: s.permissionNeeded,
    onlyFor: s.onlyFor,
    cancelled: s.cancelled,
    fee: s.fee + (s.parentId === null ? courseFee : 0)
  }
}

/** Sections for which the condition holds, by number. */
async function readSections(db: Reader, condition: SQL): Promise<Section[]> {
  const rows = await sectionRows(db, condition)
  if (!rows.length) return []
  const ids = rows.map((row) => row.section.id)
  const meetings = await meetingsOf(db, ids)
  const instructors = await instructorsOf(db, ids)
  const reserved = await reservedSeats(db, inArray(t.reservedSeats.sectionId, ids))
  return rows.map((row): Section => {
    const { id } = row.section
    return {
      ...sectionOf(row),
      instructors: (instructors.get(id) ?? []).map(({ name }) => name),
      reserved: reserved.get(id) ?? [],
      meetings: (meetings.get(id) ?? []).map(({ meeting, room, building }) => ({
        days: parseDayLetters(meeting.days) ?? [],
        start: meeting.startsMin,
        end: meeting.endsMin,
        from: meeting.fromOn,
        to: meeting.toOn,
        campus: row.campus,
        building,
        room: room === null ? null : `${building} ${room}`
      }))
    }
  })
}

/** A seat that is kept for the line is nobody else's. */
const takenOf = (row: Pick<typeof t.section.$inferSelect, 'taken' | 'offered' | 'takenFormerly'>) =>
  row.taken + row.offered + row.takenFormerly

/** The rows of sections, locked until the transaction ends, in the order of all locks. */
export function lockSections(tx: Transaction, codes: readonly string[]) {
  return tx
    .select()
    .from(t.section)
    .where(inArray(t.section.code, [...codes]))
    .orderBy(asc(t.section.id))
    .for('update')
}

/** Sections that were read before, with what their rows say now; of those that are not locked, as they were. */
export async function asLocked(
  tx: Transaction,
  sections: readonly Section[],
  locked: readonly (typeof t.section.$inferSelect)[]
): Promise<Section[]> {
  const rows = new Map(locked.map((row) => [row.code, row]))
  const kept = sections.flatMap((one) => (one.reserved.length ? (rows.get(one.code)?.id ?? []) : []))
  const reserved = kept.length
    ? await reservedSeats(tx, inArray(t.reservedSeats.sectionId, kept))
    : new Map<number, ReservedSeats[]>()
  return sections.map((one) => {
    const row = rows.get(one.code)
    if (!row) return one
    const { capacity, waitCapacity, waiting, officeOnly, permissionNeeded, onlyFor, cancelled } = row
    return {
      ...one,
      ...{ capacity, waitCapacity, waiting, officeOnly, permissionNeeded, onlyFor, cancelled },
      taken: takenOf(row),
      reserved: reserved.get(row.id) ?? []
    }
  })
}

/** Seats kept for a program or a block that none of its students has taken, by the id of their section. */
export async function reservedSeats(db: Reader, condition: SQL): Promise<Map<number, ReservedSeats[]>> {
  const inProgram = db
    .select({ id: t.studentProgram.studentId })
    .from(t.studentProgram)
    .innerJoin(t.programVersion, eq(t.programVersion.id, t.studentProgram.programVersionId))
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .where(
      all(
        eq(t.studentProgram.studentId, t.registration.studentId),
        eq(t.program.code, t.reservedSeats.programCode)
      )
    )
  const isFor = or(eq(t.student.blockId, t.reservedSeats.blockId), exists(inProgram))!
  const rows = await db
    .select({
      sectionId: t.reservedSeats.sectionId,
      program: t.reservedSeats.programCode,
      block: t.block.title,
      seats: t.reservedSeats.seats,
      taken: count(t.student.id)
    })
    .from(t.reservedSeats)
    .innerJoin(t.section, eq(t.section.id, t.reservedSeats.sectionId))
    .leftJoin(t.block, eq(t.block.id, t.reservedSeats.blockId))
    .leftJoin(t.registration, eq(t.registration.sectionId, t.reservedSeats.sectionId))
    .leftJoin(t.student, all(eq(t.student.id, t.registration.studentId), isFor))
    .where(condition)
    .groupBy(t.reservedSeats.id, t.block.title)
    .orderBy(t.reservedSeats.id)
  const found = new Map<number, ReservedSeats[]>()
  for (const { sectionId, program, block, seats, taken } of rows)
    found.set(sectionId, [
      ...(found.get(sectionId) ?? []),
      { program, block, left: Math.max(0, seats - taken) }
    ])
  return found
}

/** All sections of a published term; of some of its courses where they are named. */
export async function offerOf(db: Reader, term: string, courses?: readonly CourseCode[]): Promise<Section[]> {
  if (courses && !courses.length) return []
  const some = courses ? [inArray(t.course.code, [...courses])] : []
  return readSections(db, all(eq(t.term.code, term), eq(t.term.published, true), ...some))
}

/** The same of a term that is not published too: for those who plan it. */
export async function plannedOffer(db: Reader, term: string, course: CourseCode): Promise<Section[]> {
  return readSections(db, all(eq(t.term.code, term), eq(t.course.code, course)))
}

export async function sectionsByCode(db: Reader, codes: readonly SectionCode[]): Promise<Section[]> {
  return codes.length ? readSections(db, inArray(t.section.code, [...codes])) : []
}

/** Sections with their components, given the codes of either. */
export async function familiesOf(db: Reader, codes: readonly SectionCode[]): Promise<Section[]> {
  if (!codes.length) return []
  const rows = await db
    .select({ id: t.section.id, parentId: t.section.parentId })
    .from(t.section)
    .where(inArray(t.section.code, [...codes]))
  const heads = [...new Set(rows.map((row) => row.parentId ?? row.id))]
  return heads.length
    ? readSections(db, or(inArray(t.section.id, heads), inArray(t.section.parentId, heads))!)
    : []
}

/** The courses of sections. */
export async function coursesOf(db: Reader, codes: readonly string[]): Promise<CourseCode[]> {
  if (!codes.length) return []
  const rows = await db
    .selectDistinct({ course: t.course.code })
    .from(t.section)
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .where(inArray(t.section.code, [...codes]))
  return rows.map((row) => courseCode(row.course))
}
