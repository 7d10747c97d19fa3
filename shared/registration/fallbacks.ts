/** What a student says of a line of the run sheet: what is tried after it, with what it stands, what is given up for it. */
import type { CourseCode, SectionCode, TermCode } from '#core/ids'

/** Other sections, of the course or of another one, or a place in the line of the sections that were picked. */
export type Fallback = { kind: 'sections'; sections: SectionCode[] } | { kind: 'line' }

export interface LineFallbacks {
  term: TermCode
  course: CourseCode
  list: Fallback[]
  /** The course without which this one is not wanted. */
  onlyWith: CourseCode | null
  /** The course whose seat is given up once a seat of this one is had, and only then. */
  givingUp: CourseCode | null
  /** What is chosen of a range of credits; null for the least. */
  credits: number | null
  /** The student's own words about it. */
  note: string | null
}

/** As many as a line can have. */
export const MOST_FALLBACKS = 3

/** What was said of a line; nothing special where nothing was. */
export function fallbacksOf(
  all: readonly LineFallbacks[],
  term: string,
  course: string
): Omit<LineFallbacks, 'term' | 'course'> {
  const said = all.find((one) => one.term === term && one.course === course)
  return said ?? { list: [], onlyWith: null, givingUp: null, credits: null, note: null }
}
