/** Sections that an advisor proposes for a course of the student's week. */
import type { CourseCode, SectionCode, TermCode } from '#core/ids'
import type { Instant } from '#core/time'

export interface SectionSuggestion {
  id: number
  /** Its number in the talk. One that takes the place of another keeps its number. */
  number: number
  by: string
  /** By whoever reads. */
  own: boolean
  at: Instant
  term: TermCode
  course: CourseCode
  sections: { code: SectionCode; number: string }[]
  state: 'waiting' | 'accepted' | 'declined'
  answer: { by: string; at: Instant } | null
}

/** `ENDA 310, section 02 + 02A`. */
export const suggestedSections = ({
  course,
  sections
}: Pick<SectionSuggestion, 'course' | 'sections'>): string =>
  `${course}, section ${sections.map((one) => one.number).join(' + ')}`
