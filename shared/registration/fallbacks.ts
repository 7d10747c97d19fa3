/** What is tried for a line of the run sheet where it does not go through, in order. */
import type { CourseCode, SectionCode, TermCode } from '#core/ids'

/** Other sections, of the course or of another one, or a place in the line of the sections that were picked. */
export type Fallback = { kind: 'sections'; sections: SectionCode[] } | { kind: 'line' }

export interface LineFallbacks {
  term: TermCode
  course: CourseCode
  list: Fallback[]
  /** The course without which this one is not wanted. */
  onlyWith: CourseCode | null
}

/** As many as a line can have. */
export const MOST_FALLBACKS = 3

/** What was said of a line; no fallbacks and no company where nothing was. */
export function fallbacksOf(
  all: readonly LineFallbacks[],
  term: string,
  course: string
): Pick<LineFallbacks, 'list' | 'onlyWith'> {
  return all.find((one) => one.term === term && one.course === course) ?? { list: [], onlyWith: null }
}
