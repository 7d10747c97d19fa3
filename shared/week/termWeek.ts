/** A term of a student as one draft week would have it: the seats that are held, and what is picked. */
import type { CourseCode } from '#core/ids'
import type { Section } from '#core/week'
import type { DraftWeek } from './responses'
import type { StudentRecord } from '#shared/record/responses'

export interface TermWeek {
  /** Sections of which a seat is held, with their components. */
  held: Section[]
  /** Those of them that stay. */
  staying: Section[]
  /** What is picked beside them, or instead. */
  picked: Section[]
  /** What of it is still to be had: without the sections that stay in an exchange. */
  wanted: Section[]
  /** Courses of which the seat that is held is given back for what is picked. */
  exchanged: ReadonlySet<CourseCode>
}

/** What is picked for a course of which a seat is held counts only where it was picked to exchange that seat. */
export function termWeek(
  { held: seats, sections }: Pick<StudentRecord, 'held' | 'sections'>,
  term: string | undefined,
  draft: Pick<DraftWeek, 'sections' | 'exchanges'> | undefined
): TermWeek {
  const inTerm = sections.filter((one) => one.term === term)
  const mine = seats.filter((seat) => seat.term === term)
  const codes = new Set<string>(mine.flatMap((seat) => [seat.section, ...seat.components]))
  const wanted = new Set<string>(draft?.sections ?? [])
  const held = inTerm.filter((one) => codes.has(one.code))
  const picks = inTerm.filter((one) => wanted.has(one.code))
  const courses = new Set(mine.map((seat) => seat.course))
  const isAnother = (course: CourseCode) => {
    const own = picks.filter((one) => one.course === course)
    return own.length > 0 && own.some((one) => !codes.has(one.code))
  }
  const exchanged = new Set((draft?.exchanges ?? []).filter((one) => courses.has(one) && isAnother(one)))
  const picked = picks.filter((one) => !courses.has(one.course) || exchanged.has(one.course))
  return {
    held,
    staying: held.filter((one) => !exchanged.has(one.course)),
    picked,
    wanted: picked.filter((one) => !codes.has(one.code)),
    exchanged
  }
}
