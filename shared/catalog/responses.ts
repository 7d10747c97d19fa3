/** What the server answers about courses and terms. */
import type { Course, Session, Term } from '#core/catalog'
import type { GradeSpec } from '#core/grades'
import type { TermPrices } from '#core/charges'
import type { CourseCode, TermCode } from '#core/ids'
import type { LinePolicy, SessionDates, SignOffPolicy } from '#core/registration'
import type { Instant, IsoDate } from '#core/time'
import type { GuidanceText } from './guidance'

export interface SessionView extends Session {
  /** Where it has dates of its own; null where those of the term hold. */
  dates: SessionDates | null
}

export interface TermView extends Term {
  addEndsAt: Instant
  /** Until then a drop leaves no trace on the record; then the grade of a late drop. */
  dropFreeEndsAt: Instant
  dropEndsAt: Instant
  line: LinePolicy
  /** Whether a run sheet may be left to run by itself at its opening. */
  arming: boolean
  /** Until then students hand in what they mean to take, before there are sections; null where that is not asked. */
  intentionsDueAt: Instant | null
  /** Until then those who finish in the term apply to graduate. */
  graduateBy: Instant | null
  paymentDueOn: IsoDate
  /** Null where it is not known here what the term costs. */
  prices: TermPrices | null
  loadMost: number
  /** A course earned with less than this grade may be taken again. */
  repeatBelow: string | null
  signOffPolicy: SignOffPolicy
  /** What a student accepts once before the first seat; null where nothing is asked. */
  agreement: string | null
  sessions: SessionView[]
  holidays: { date: IsoDate; name: string }[]
}

export interface CatalogView {
  institution: {
    name: string
    timeZone: string
    /** Its grade scale; null where that is the common one. */
    grades: GradeSpec[] | null
  }
  campuses: { code: string; name: string }[]
  /** Minutes from one campus to another. */
  travel: { from: string; to: string; minutes: number }[]
  terms: TermView[]
  courses: Course[]
  subjects: { code: string; name: string; college: string }[]
  categories: { family: string; code: string; title: string }[]
  /** A course, and the lab that can be taken beside it for support. */
  supportLabs: { course: CourseCode; lab: CourseCode }[]
  lists: CourseListView[]
  /** Courses with sections, by published term. */
  running: Record<string, string[]>
  /** In which ways a course has been held or is offered. */
  heldAs: Record<string, { online: boolean; evening: boolean; campuses: string[] }>
  /** The institution's own short texts, in the order in which they were written. */
  guidance: GuidanceText[]
}

export interface CourseListView {
  name: string
  catalogYear: string
  title: string
  /** A text of the course-set language. */
  from: string
}

export interface CoursePage {
  code: CourseCode
  description: string
  fee: number
  /** Terms with sections of it, the latest first: how many, and how full they are. */
  history: { term: TermCode; sections: number; seats: number; taken: number }[]
}

/** What a student has marked of a course. */
export interface CourseBookmark {
  course: CourseCode
  starred: boolean
  lookedAt: Instant | null
  note: string | null
}
