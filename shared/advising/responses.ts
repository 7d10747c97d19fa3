/** What the server answers to advisors, and about them. */
import type { Adding } from '#core/calendar'
import type { SignOffCondition } from '#core/findings'
import type { CourseCode, StudentId, TermCode } from '#core/ids'
import type { Standing } from '#core/requisites'
import type { Instant } from '#core/time'

export interface AdvisorCard {
  id: number
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
  conditions: SignOffCondition[]
  /** From then on it stands no more. */
  until: Instant | null
}

/** The last review of a term that was asked for and not withdrawn. */
export interface ReviewView {
  term: TermCode
  note: string | null
  askedAt: Instant
  /** `missing` where the answer is not yet. */
  answer: { by: string; at: Instant; missing: string | null } | null
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
  /** Reviews that wait for an answer, of any term, the oldest first. */
  reviews: { term: TermCode; askedAt: Instant }[]
  /** Threads with remarks that whoever looks has not read. */
  unread: number
  /** Lines that were agreed and are not done, past their day. */
  overdue: number
  /** Waivers asked for and not answered. */
  waiversAsked: number
  /** Permissions asked for and neither answered nor handed on. */
  permissionsAsked: number
  /** When the first seat offer to them runs out. */
  offerUntil: Instant | null
  /** The route finishes later than the student wants, or not at all. */
  late: boolean
  /** Whether they and an advisor have spoken or written to each other. */
  spoken: boolean
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
