/** The talk between a student and the advisors: remarks about a matter each, and what was agreed. */
import type { IsoDate, Instant } from '#core/time'

/** What a thread is about. A finding is named by what it says and where, a section by its code. */
export const THREAD_SUBJECTS = ['route', 'term', 'course', 'need', 'section', 'finding'] as const

export interface ThreadSubject {
  is: (typeof THREAD_SUBJECTS)[number]
  /** The term, course, need or section, of a finding its name; null of the whole route. */
  key: string | null
}

export interface Remark {
  id: number
  by: string
  /** By whoever reads. */
  own: boolean
  text: string
  at: Instant
  /** Who is asked to read it. */
  to: { name: string; you: boolean }[]
}

/** Somebody who can be named in a remark: the student, or one of the advisors by their number. */
export type Named = 'student' | number

export interface Thread {
  id: number
  /** Its number in the talk, among matters and suggestions; none among advisors. */
  number: number | null
  about: ThreadSubject
  /** Among advisors; the student is not sent it. */
  advisorsOnly: boolean
  settled: { by: string; at: Instant } | null
  remarks: Remark[]
  /** How many of the last ones whoever reads has not read yet. */
  unread: number
}

/** Who has to do what was agreed; of several advisors of one kind, any. */
export const AGREED_BY = ['student', 'programAdvisor', 'supportAdvisor'] as const

export interface AgreedLine {
  id: number
  what: string
  who: (typeof AGREED_BY)[number]
  /** The last day for it; null for one without. */
  due: IsoDate | null
  madeBy: string
  madeAt: Instant
  done: { by: string; at: Instant } | null
}

/** Whether it should have been done before a day. */
export const isOverdue = ({ due, done }: Pick<AgreedLine, 'due' | 'done'>, today: IsoDate): boolean =>
  due !== null && done === null && due < today
