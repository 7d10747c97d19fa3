/** What a term is asked for, course by course, beside the seats that there are. */
import type { CourseCode } from '#core/ids'

export interface CourseDemand {
  course: CourseCode
  title: string
  /** Students who handed the course in as meant for the term. */
  handedIn: number
  /** Students who have it on their chosen route in the term, or hold a seat; those are among them. */
  planned: number
  /** Of those planned, the ones of whom an advisor signed it off. */
  signedOff: number
  /** Seats of sections that are not cancelled, published or not; null without a section. */
  seats: number | null
  taken: number
}

/** Seats that are missing for those who want one. */
export const shortOf = ({ handedIn, planned, seats }: CourseDemand): number =>
  Math.max(0, Math.max(handedIn, planned) - (seats ?? 0))
