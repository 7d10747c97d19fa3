/** How a student has prepared the run sheet of a term. */
import type { CourseCode, TermCode } from '#core/ids'

export interface PreparedSheet {
  term: TermCode
  /** The order in which courses are registered; those not named follow as they are. */
  order: CourseCode[]
  /** Courses that no run registers until they are chosen again. */
  leftOut: CourseCode[]
  /** All that is chosen goes through together or not at all. */
  whole: boolean
  /** At the opening it runs by itself. */
  armed: boolean
}

/** What was said of a term's sheet; nothing special where nothing was. */
export function preparedOf(all: readonly PreparedSheet[], term: TermCode): PreparedSheet {
  return all.find((one) => one.term === term) ?? { term, order: [], leftOut: [], whole: false, armed: false }
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
