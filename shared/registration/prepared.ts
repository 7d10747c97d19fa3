/** How a student has prepared the run sheet of a term. */
import type { CourseCode, TermCode } from '#core/ids'
import type { RegistrationFacts } from '#core/registration'
import { goingWith } from '#shared/reading'
import type { StudentRecord } from '#shared/record/responses'
import { termWeek } from '#shared/week/termWeek'

export interface PreparedSheet {
  term: TermCode
  /** The order in which courses are registered; those not named follow as they are. */
  order: CourseCode[]
  /** Courses that no run registers until they are chosen again. */
  leftOut: CourseCode[]
  /** Courses whose seats are given back when the sheet is run, before anything else and whatever becomes of it. */
  drops: CourseCode[]
  /** All that is chosen goes through together or not at all. */
  whole: boolean
  /** At the opening it runs by itself. */
  armed: boolean
}

/** What was said of a term's sheet; nothing special where nothing was. */
export function preparedOf(all: readonly PreparedSheet[], term: TermCode): PreparedSheet {
  return (
    all.find((one) => one.term === term) ?? {
      term,
      order: [],
      leftOut: [],
      drops: [],
      whole: false,
      armed: false
    }
  )
}

/** What the run of a prepared sheet is asked to do, as things stand. */
export function preparedRun(
  studentRecord: Pick<StudentRecord, 'held' | 'sections' | 'fallbacks' | 'drafts' | 'prepared'>,
  term: TermCode
): { courses: CourseCode[]; drop: CourseCode[]; whole: boolean } {
  const prepared = preparedOf(studentRecord.prepared, term)
  const { held, picked, exchanged } = termWeek(studentRecord, term, goingWith(studentRecord, term))
  const wanted = inOrder(
    picked.filter((one) => one.parent === null && !prepared.leftOut.includes(one.course)),
    prepared.order
  )
  const courses = wanted.map((one) => one.course)
  const drop = dropsOf(prepared, { heldSections: held, exchanging: exchanged })
  return { courses, drop, whole: prepared.whole && courses.length > 1 }
}

/** What of the courses that are to be dropped first is held and not exchanged. */
export function dropsOf(
  { drops }: PreparedSheet,
  { heldSections, exchanging }: Pick<RegistrationFacts, 'heldSections' | 'exchanging'>
): CourseCode[] {
  return drops.filter(
    (course) => !exchanging.has(course) && heldSections.some((one) => one.course === course)
  )
}

/** Lines in the order that was given; those it does not name follow, as they were. */
export function inOrder<Line extends { course: CourseCode }>(
  lines: readonly Line[],
  order: readonly CourseCode[]
): Line[] {
  const named = order.flatMap((course) => lines.filter((line) => line.course === course))
  const known = new Set(named)
  return [...named, ...lines.filter((line) => !known.has(line))]
}
