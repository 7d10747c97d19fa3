/** What is tried for a line of the run sheet where it does not go through, in order. */
import type { CourseCode, SectionCode, TermCode } from '#core/ids'

/** Other sections of the course, or a place in the line of the sections that were picked. */
export type Fallback = { kind: 'sections'; sections: SectionCode[] } | { kind: 'line' }

export interface LineFallbacks {
  term: TermCode
  course: CourseCode
  list: Fallback[]
}

/** As many as a line can have. */
export const MOST_FALLBACKS = 3

/** The fallbacks of a line; none where nothing was said. */
export function fallbacksOf(
  all: readonly LineFallbacks[],
  term: string,
  course: string
): readonly Fallback[] {
  return all.find((one) => one.term === term && one.course === course)?.list ?? []
}
