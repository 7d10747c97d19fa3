/** What the server answers to advisors, and about them. */
import type { Adding } from '#core/calendar'
import type { CourseCode, StudentId, TermCode } from '#core/ids'
import type { Standing } from '#core/requisites'
import type { Instant } from '#core/time'

export interface AdvisorCard {
  name: string
  kind: 'person' | 'office'
  purpose: 'program' | 'support'
  office: string
  mail: string
  phone: string
  hours: string
}

export interface SignOffView {
  term: TermCode
  by: string
  at: Instant
  courses: CourseCode[]
  creditsLeast: number
  creditsMost: number
}

/** Whether the prerequisite of a course is asked of the student. */
export interface WaiverView {
  course: CourseCode
  state: 'asked' | 'granted' | 'declined'
  reason: string
  askedAt: Instant
  answered: { by: string; at: Instant } | null
}

export interface DeskRow {
  id: StudentId
  name: string
  programs: string
  standing: Standing
  attendance: string
  purpose: 'program' | 'support'
  reviewAskedAt: Instant | null
  /** Waivers asked for and not answered. */
  waiversAsked: number
  signedOffAt: Instant | null
  changedSince: boolean
  planned: number
  findings: number
  outside: number
  needed: number
  holds: number
  opens: Instant | null
  /** Whether the student may add courses to the term. */
  adding: Adding
  climb: { goal: number; points: { reached: number; ahead: boolean }[] }
}

export interface Desk {
  term: TermCode
  rows: DeskRow[]
}
