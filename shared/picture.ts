/** What the server tells a screen. Instants are milliseconds since 1970, UTC. */
import type { Adding } from '#core/calendar'
import type { Course, Session, Term } from '#core/catalog'
import type { ExceptionGrant, HeldSeat, PlannedCourse, ProgramSpec, RecordEntry } from '#core/degree'
import type { Refusal, RouteChange } from '#core/findings'
import type { CourseCode, SectionCode, StudentId, TermCode } from '#core/ids'
import type { Hold, SignOffPolicy } from '#core/registration'
import type { RuleLeaf, Standing } from '#core/requisites'
import type { Instant, IsoDate } from '#core/time'
import type { KeptHours, Wish } from '#core/find'
import type { AsPicked, Section } from '#core/week'

export type Role = 'student' | 'programAdvisor' | 'supportAdvisor' | 'registrar'

export interface Who {
  id: number
  name: string
  role: Role
  student: StudentId | null
}

/** Where somebody is signed in; times are the machine's. */
export interface SignedInAt {
  id: number
  browser: string
  signedInAt: number
  seenAt: number
  /** It is the browser that asks. */
  here: boolean
}

export interface TermPicture extends Term {
  addEndsAt: Instant
  dropEndsAt: Instant
  paymentDueOn: IsoDate
  loadMost: number
  signOffPolicy: SignOffPolicy
  sessions: Session[]
  holidays: { date: IsoDate; name: string }[]
}

export interface CatalogPicture {
  institution: { name: string; timeZone: string }
  campuses: { code: string; name: string }[]
  /** Minutes from one campus to another. */
  travel: { from: string; to: string; minutes: number }[]
  terms: TermPicture[]
  courses: Course[]
  subjects: { code: string; name: string; college: string }[]
  categories: { family: string; code: string; title: string }[]
  /** A course, and the lab that can be taken beside it for support. */
  supportLabs: { course: CourseCode; lab: CourseCode }[]
  lists: CourseListPicture[]
  /** Courses with sections, by published term. */
  running: Record<string, string[]>
  /** In which ways a course has been held or is offered. */
  heldAs: Record<string, { online: boolean; evening: boolean; campuses: string[] }>
}

export interface CourseListPicture {
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
export interface CourseMark {
  course: CourseCode
  starred: boolean
  lookedAt: Instant | null
  note: string | null
}

export interface AdvisorCard {
  name: string
  kind: 'person' | 'office'
  purpose: 'program' | 'support'
  office: string
  mail: string
  phone: string
  hours: string
}

export interface SignOffPicture {
  term: TermCode
  by: string
  at: Instant
  courses: CourseCode[]
  creditsLeast: number
  creditsMost: number
}

export interface StudentPicture {
  student: {
    id: StudentId
    name: string
    number: string
    standing: Standing
    level: 'undergraduate' | 'graduate'
    campus: string
    block: string | null
    attendance: 'fullTime' | 'partTime' | 'evening' | 'distance'
  }
  /** How the person who asks stands to this record. */
  relation: 'self' | 'programAdvisor' | 'supportAdvisor' | 'registrar'
  programs: { spec: ProgramSpec; confirmed: 'open' | 'confirmed' | 'wrong'; saidInstead: string | null }[]
  tests: Record<string, number>
  /** Conditions met beside courses, by id. */
  milestones: string[]
  exceptions: ExceptionGrant[]
  waivers: WaiverPicture[]
  record: RecordEntry[]
  held: HeldWithParts[]
  waiting: { section: SectionCode; course: CourseCode; term: TermCode; place: number }[]
  holds: (Hold & { howToLift: string })[]
  advisors: AdvisorCard[]
  /** The chosen route. */
  route: RoutePicture
  carry: Carry
  drafts: DraftWeek[]
  /** Held and picked sections of terms that are not past, and those waited for. */
  sections: Section[]
  openings: { term: TermCode; title: string; opens: Instant }[]
  /** Hours that the student keeps free. */
  keepFree: KeepFree[]
  /** Sections the student is let into in spite of a rule. */
  permitted: { section: SectionCode; until: Instant | null }[]
  signOffs: SignOffPicture[]
  messages: { from: string; text: string; at: Instant }[]
}

/** A seat, with the codes of the components held with it. */
export interface HeldWithParts extends HeldSeat {
  components: SectionCode[]
}

/** One set of picked sections for a term. */
export interface DraftWeek {
  id: number
  term: TermCode
  name: string
  /** Of the draft weeks of a term one is: what the run sheet and the checks rest on. */
  goingWith: boolean
  sections: SectionCode[]
  /** Courses of which a seat was held when their sections were picked: instead of it. */
  exchanges: CourseCode[]
  /** What they were like when they were picked, by code. */
  asPicked: Record<string, AsPicked>
  /** The key of the link under which it is shared; null while it is not. */
  shareKey: string | null
}

/** Hours a student keeps free, in every term. */
export interface KeepFree extends KeptHours {
  /** Must hold; otherwise if possible. */
  hard: boolean
}

/** What a student cares about in a week. */
export interface WeekHabits {
  /** In order of weight. */
  wishes: Wish[]
  /** Whether the way from one campus to another must fit between classes. */
  travelHolds: boolean
}

/** A draft week as everybody sees it who has its link: the week, and nothing else of the record. */
export interface SharedWeek {
  institution: string
  name: string
  term: TermCode
  termName: string
  sections: Section[]
}

/** Whether the prerequisite of a course is asked of the student. */
export interface WaiverPicture {
  course: CourseCode
  state: 'asked' | 'granted' | 'declined'
  reason: string
  askedAt: Instant
  answered: { by: string; at: Instant } | null
}

export interface RoutePicture {
  /** Null while there is none yet; it is made by the first change. */
  id: number | null
  name: string
  note: string | null
  chosen: boolean
  version: number
  changedAt: Instant
  changedBy: string
  reviewAskedAt: Instant | null
  advisorMayEdit: boolean
  /** The advisor who last looked at it, when, and at which version. */
  seen: { by: string; at: Instant; version: number } | null
  courses: PlannedCourse[]
  /** What undo would take back, and redo make again. */
  undo: RouteChange | null
  redo: RouteChange | null
}

/** A student as one person's screens show them: with every route. */
export interface StudentView extends StudentPicture {
  routes: RoutePicture[]
  /** The student's own; empty for everybody else. */
  marks: CourseMark[]
  habits: WeekHabits
  /** The key of the private calendar address; null while there is none, and for everybody else. */
  calendarKey: string | null
  /** What the student or an advisor noted on a term. */
  termNotes: { term: TermCode; text: string; by: string }[]
}

/** What a change of a route has come to. */
export interface RouteAnswer {
  route: number
  version: number
  made: RouteChange
  changedAt: Instant
  changedBy: string
  undo: RouteChange | null
  redo: RouteChange | null
}

/** Told to everybody who looks at a student when a route, or what can be carried, has changed. */
export interface RouteNews {
  by: string
  /** The route's number and version; null when something else has changed. */
  route: number | null
  version: number | null
}

export interface RouteVersion {
  version: number
  kind: 'do' | 'undo' | 'redo'
  change: RouteChange
  at: Instant
  by: string
}

/** What a student can carry in a term; null where nothing is said. */
export interface Carry {
  credits: number | null
  /** Fewest credits of a term in which something is taken. */
  least: number | null
  /** Hours a week for study outside class. */
  hours: number | null
  /** Hours a week of work and family. */
  outside: number | null
  /** The term in which the student wants to finish. */
  target: TermCode | null
  /** Where a term differs, or is spent elsewhere. */
  terms: { term: TermCode; credits: number | null; hours: number | null; away: 'exchange' | 'leave' | null }[]
}

export interface SheetLine {
  course: CourseCode
  title: string
  credits: number
  /** Null: planned, no section picked. */
  sections: Section[] | null
  state: 'ready' | 'registered' | 'unsettled'
  /** The seat given back for it. */
  givesBack: Section[]
  /** As of the opening, or as of now once it is past. */
  refusals: Refusal[]
  assumed: RuleLeaf[]
}

export interface RunSheet {
  term: TermCode
  opens: Instant | null
  openingTitle: string | null
  closes: Instant
  checkedFor: Instant
  general: Refusal[]
  lines: SheetLine[]
  loadMost: number
  credits: { registered: number; ready: number }
  receipts: Receipt[]
}

export interface ReceiptLine {
  course: CourseCode
  sections: string[]
  /** The sections of the seat given back for it. */
  gaveBack: string[]
  outcome: 'registered' | 'exchanged' | 'refused' | 'unsettled'
  refusals: Refusal[]
}

export interface Receipt {
  id: number
  at: Instant
  by: string
  lines: ReceiptLine[]
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

export interface ClockPicture {
  mode: 'standing' | 'running' | 'real'
  now: Instant
}

/** Grades that are due in a term that is over. */
export interface GradesDue {
  term: TermCode
  grades: number
  students: number
}

export interface OpeningPicture {
  term: TermCode
  title: string
  opens: Instant
}

/** How every refused request answers. */
export interface Problem {
  code: string
  message: string
  fields?: { field: string; message: string }[]
}
