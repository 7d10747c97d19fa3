/** What a term is asked for, course by course, beside the seats that there are. */
import type { CourseCode, StudentId } from '#core/ids'
import type { Instant } from '#core/time'

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

/** Somebody who means to take a course and holds no seat in it. */
export interface Waiting {
  student: StudentId
  /** When they may register; null where no opening is for them yet. */
  opens: Instant | null
  /** They cannot take it later without finishing later. */
  needs: boolean
}

/** Who needs a course and finds no seat, if all register when they may: surely, or only if others are faster. */
export interface Left {
  student: StudentId
  surely: boolean
}

/** @param free seats that nobody holds */
export function leftWithout(free: number, waiting: readonly Waiting[]): Left[] {
  const at = (one: Waiting) => one.opens ?? Infinity
  return waiting
    .filter((one) => one.needs)
    .flatMap((one) => {
      const before = waiting.filter((other) => at(other) < at(one)).length
      const with_ = waiting.filter((other) => at(other) === at(one)).length
      if (before + with_ <= free) return []
      return [{ student: one.student, surely: before >= free }]
    })
}

export interface CourseNeeds {
  course: CourseCode
  /** Students who plan it, hold no seat in it, and cannot take it later without finishing later. */
  needs: number
  /** Of those, the ones who find no seat if all register when they may; and who may find none. */
  left: number
  mayBeLeft: number
  /** Who they are, for the registrar. */
  students: readonly (Left & { name: string; number: string; opens: Instant | null })[]
}

/** As far as it is worked out. */
export interface TermNeeds {
  /** Students whose record was read, of those who plan something and hold no seat in it; courses are told once all were. */
  read: number
  of: number
  courses: readonly CourseNeeds[]
}
