/** What the server answers to advisors, and about them. */
import type { Adding } from '#core/calendar'
import type { SignOffCondition } from '#core/findings'
import type { CourseCode, StudentId, TermCode } from '#core/ids'
import type { Standing } from '#core/requisites'
import type { Pace } from '#core/route'
import type { Instant, IsoDate } from '#core/time'
import type { KeptDeskView } from './desk'
import type { ReviewAnswer } from './review'

export interface AdvisorCard {
  id: number
  name: string
  kind: 'person' | 'office'
  purpose: 'program' | 'support'
  office: string
  mail: string
  phone: string
  hours: string
  /** Days on which they are away, both included, and who stands in. */
  away: { from: IsoDate; to: IsoDate; standIn: string | null }[]
}

export interface SignOffView {
  term: TermCode
  by: string
  at: Instant
  courses: CourseCode[]
  /** Courses that may be taken in place of one of them. */
  alternatives: CourseCode[]
  creditsLeast: number
  creditsMost: number
  conditions: SignOffCondition[]
  /** From then on it stands no more. */
  until: Instant | null
  /** What marks those that were given together; null for one by itself. */
  together: string | null
}

/** The last review of a term that was asked for and not withdrawn. */
export interface ReviewView {
  term: TermCode
  note: string | null
  answers: ReviewAnswer[]
  askedAt: Instant
  /** `missing` where the answer is not yet. */
  answer: { by: string; at: Instant; missing: string | null } | null
}

export interface DeskRow {
  id: StudentId
  name: string
  programs: string
  standing: Standing
  attendance: string
  purpose: 'program' | 'support'
  /** The advisor who is away, where whoever looks stands in. */
  standsInFor: string | null
  /** Reviews that wait for an answer, of any term, the oldest first. */
  reviews: { term: TermCode; askedAt: Instant }[]
  /** Threads with remarks that whoever looks has not read. */
  unread: number
  /** Lines that were agreed and are not done, past their day. */
  overdue: number
  /** Requests that wait for the program advisor; none of another's to decide. */
  requestsAsked: number
  /** When the first seat offer to them runs out. */
  offerUntil: Instant | null
  /** The route finishes later than the student wants, or not at all. */
  late: boolean
  /** Whether they and an advisor have spoken or written to each other. */
  spoken: boolean
  signedOffAt: Instant | null
  changedSince: boolean
  /** The term asks for a sign-off that they do not have, or have lost by a change. */
  isBarred: boolean
  /** What marks those whom whoever looks signed off together with them. */
  together: string | null
  planned: number
  findings: number
  outside: number
  needed: number
  holds: number
  opens: Instant | null
  /** Whether the student may add courses to the term. */
  adding: Adding
  climb: {
    goal: number
    points: { reached: number; ahead: boolean }[]
    pace: Pace
    /** Credits of a regular term at the pace of the program. */
    usual: number
    aim: TermCode | null
  }
}

export interface Desk {
  term: TermCode
  rows: DeskRow[]
  /** Views that whoever looks has kept by a name. */
  views: KeptDeskView[]
}
