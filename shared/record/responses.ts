/** What the server answers about a student. */
import type { Payer } from '#core/charges'
import type { ExceptionGrant, HeldSeat, ProgramSpec, RecordEntry } from '#core/degree'
import type { CourseCode, SectionCode, StudentId, TermCode } from '#core/ids'
import type { Hold } from '#core/registration'
import type { Standing } from '#core/requisites'
import type { Instant } from '#core/time'
import type { PermissionKind, Section } from '#core/week'
import type { AdvisorCard, ReviewView, SignOffView } from '#shared/advising/responses'
import type { ProgramPolicy, ReviewRules } from '#shared/advising/review'
import type { StudentRequest } from '#shared/advising/asking'
import type { AppointmentView, TalkRecordView } from '#shared/appointments/appointments'
import type { SectionSuggestion } from '#shared/advising/sectionSuggestions'
import type { Suggestion } from '#shared/advising/suggestions'
import type { AgreedLine, Thread } from '#shared/advising/talk'
import type { TermAccount } from '#shared/charges/responses'
import type { GraduationView } from '#shared/degree/graduation'
import type { CourseBookmark } from '#shared/catalog/responses'
import type { LineFallbacks } from '#shared/registration/fallbacks'
import type { PreparedSheet } from '#shared/registration/prepared'
import type { Intentions } from '#shared/route/intentions'
import type { RouteView, Carry } from '#shared/route/responses'
import type { DraftWeek, KeepFree, WeekHabits } from '#shared/week/responses'

export interface StudentRecord {
  student: {
    id: StudentId
    name: string
    number: string
    standing: Standing
    level: 'undergraduate' | 'graduate'
    residency: Payer['residency']
    campus: string
    block: string | null
    attendance: 'fullTime' | 'partTime' | 'evening' | 'distance'
  }
  /** How the person who asks stands to this record. */
  relation: 'self' | 'programAdvisor' | 'supportAdvisor' | 'registrar'
  programs: {
    spec: ProgramSpec
    confirmed: 'open' | 'confirmed' | 'wrong'
    saidInstead: string | null
    review: ReviewRules
    policies: ProgramPolicy[]
  }[]
  tests: Record<string, number>
  /** Conditions met beside courses, by id. */
  milestones: string[]
  exceptions: ExceptionGrant[]
  record: RecordEntry[]
  held: HeldWithParts[]
  waiting: WaitingPlace[]
  /** What is tried where a line of the run sheet does not go through. */
  fallbacks: LineFallbacks[]
  /** How the run sheets are prepared. */
  prepared: PreparedSheet[]
  /** Terms of registration that were accepted as they read now. */
  agreements: { term: TermCode; at: Instant }[]
  /** Seats that are held for the student for a time, without an answer yet. */
  offers: SeatOffer[]
  holds: (Hold & { howToLift: string; stopsTranscript: boolean })[]
  /** What the terms cost and what was paid of it. */
  accounts: TermAccount[]
  advisors: AdvisorCard[]
  /** The chosen route. */
  route: RouteView
  carry: Carry
  drafts: DraftWeek[]
  /** Held and picked sections of terms that are not past, and those waited for. */
  sections: Section[]
  openings: { term: TermCode; title: string; opens: Instant }[]
  /** Hours that the student keeps free. */
  keepFree: KeepFree[]
  /** What is set aside for the student, section by section. */
  permitted: { section: SectionCode; kind: PermissionKind; until: Instant | null }[]
  signOffs: SignOffView[]
  /** What was handed in as meant for a term. */
  intentions: Intentions[]
  /** Of each term the review that was asked for last. */
  reviews: ReviewView[]
  /** What was asked for and not withdrawn, with the answers. */
  requests: StudentRequest[]
  /** What was agreed in talks, to be done first by its day. */
  agreed: AgreedLine[]
  /** The application to graduate that stands, or the degree that was awarded; at most one. */
  graduations: GraduationView[]
}

/** A place in the line of a section. */
export interface WaitingPlace {
  section: SectionCode
  course: CourseCode
  term: TermCode
  place: number
  /** How many stand in that line. */
  of: number
  /** All that is waited for: a section with its components. */
  sections: SectionCode[]
}

export interface SeatOffer {
  id: number
  course: CourseCode
  term: TermCode
  sections: SectionCode[]
  offeredAt: Instant
  until: Instant
}

/** A seat, with the codes of the components held with it. */
export interface HeldWithParts extends HeldSeat {
  components: SectionCode[]
}

/** A student as one person's screens show them: with every route. */
export interface StudentView extends StudentRecord {
  routes: RouteView[]
  /** The student's own; empty for everybody else. */
  marks: CourseBookmark[]
  habits: WeekHabits
  /** Transcripts that are to be sent or were, the last first; empty for everybody but the student. */
  transcripts: TranscriptOrder[]
  /** The key of the private calendar address; null while there is none, and for everybody else. */
  calendarKey: string | null
  /** What is talked about, as far as whoever reads takes part in it. */
  talk: Thread[]
  /** Changes of the routes that advisors propose, in the order in which they were made. */
  suggestions: Suggestion[]
  sectionSuggestions: SectionSuggestion[]
  /** In order of their time; to an advisor their own. */
  appointments: AppointmentView[]
  /** Talks that were held, the last first. */
  talkRecords: TalkRecordView[]
  /** What the student or an advisor noted on a term. */
  termNotes: { term: TermCode; text: string; by: string }[]
}

/** A transcript that is to be sent to somebody outside, or was. */
export interface TranscriptOrder {
  id: number
  to: string
  email: string
  /** It waits for the grades of this term; null where it is sent as the record is. */
  after: TermCode | null
  askedAt: Instant
  sentAt: Instant | null
}

/** Grades that are due in a term that is over. */
export interface GradesDue {
  term: TermCode
  grades: number
  students: number
}
