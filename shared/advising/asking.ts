/** Requests: what a student may ask for, who decides it, and how it stands. */
import type { Refusal } from '#core/findings'
import type { CourseCode, SectionCode, StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { Role } from '#shared/accounts/responses'
import { PERMISSION_KINDS, type PermissionKind, type Section } from '#core/week'

/**
 * A permission for a section; a waiver of a course's prerequisite, or of a requirement; another course for one; another
 * program than the one on record.
 */
export const REQUEST_KINDS = [...PERMISSION_KINDS, 'waiver', 'need', 'substitution', 'program'] as const
export type RequestKind = (typeof REQUEST_KINDS)[number]

export const isPermission = (kind: RequestKind): kind is PermissionKind =>
  (PERMISSION_KINDS as readonly string[]).includes(kind)

export const DECIDERS = ['programAdvisor', 'instructor', 'department', 'registrar'] as const
export type Decider = (typeof DECIDERS)[number]
/** As whom somebody of a role decides; undefined for who decides nothing. */
export const asDecider = (role: Role | undefined): Decider | undefined => DECIDERS.find((one) => one === role)

/** Whom a request of a kind is asked of: the first of them that there is. The registrar decides what nobody else can. */
export type RequestPolicy = Readonly<Record<RequestKind, readonly Decider[]>>

/** As is usual; an institution says where it is otherwise. */
export const USUAL_POLICY: RequestPolicy = {
  prerequisite: ['instructor', 'department'],
  corequisite: ['instructor', 'department'],
  clash: ['instructor', 'department'],
  full: ['instructor', 'department'],
  consent: ['instructor', 'department'],
  reserved: ['department'],
  restriction: ['department'],
  late: [],
  load: ['programAdvisor'],
  waiver: ['programAdvisor'],
  need: ['programAdvisor'],
  substitution: ['programAdvisor'],
  program: []
}

/** Whether somebody may decide a kind of request. */
export const mayDecide = (policy: RequestPolicy, decider: Decider, kind: RequestKind): boolean =>
  decider === 'registrar' || policy[kind].includes(decider)

/** Of those who are there, the one who is asked first. */
export const firstAsked = (policy: RequestPolicy, kind: RequestKind, there: ReadonlySet<Decider>): Decider =>
  policy[kind].find((one) => there.has(one)) ?? 'registrar'

export interface HandedOn {
  by: string
  at: Instant
  to: Decider
  words: string | null
}

/** What a request is about: a section for a permission, a course, a requirement of a program. */
export interface RequestSubject {
  section: SectionCode | null
  course: CourseCode | null
  program: string | null
  need: string | null
}

export interface StudentRequest extends RequestSubject {
  id: number
  kind: RequestKind
  state: 'asked' | 'given' | 'declined'
  reason: string
  askedAt: Instant
  waitsFor: Decider
  handedOn: HandedOn[]
  /** `until`: from then on it sets nothing aside; null for one without an end. */
  answer: { by: string; at: Instant; words: string | null; until: Instant | null } | null
}

/** A request as those see it who may answer it or hand it on, or have answered it. */
export interface DeskRequest extends Omit<StudentRequest, 'program' | 'need'> {
  student: { id: StudentId; name: string }
  /** The term of the section. */
  term: TermCode | null
  /** The number of the section. */
  number: string | null
  /** The requirement in question. */
  need: { program: string; title: string } | null
  /** The program that is said to be wrong, with its catalog year. */
  onRecord: { title: string; catalogYear: string } | null
  /** What stood in the way when it was asked for. */
  against: Refusal | null
  seats: { taken: number; capacity: number; waiting: number } | null
  /** Of a clash: the section, and what it clashes with. */
  sections: Section[]
  /** As whom whoever reads has to do with it. */
  as: Decider
  mayDecide: boolean
  /** To whom it can be handed on. */
  others: Decider[]
}

export const KIND_SENTENCES: Record<RequestKind, string> = {
  prerequisite: 'to be let in without the prerequisite',
  corequisite: 'to be let in without what has to be taken beside it',
  clash: 'to be let in although hours clash',
  full: 'for a seat more in a full section',
  reserved: 'for a seat that is kept for others',
  restriction: 'to be let in although it is for others',
  load: 'to carry more credits',
  consent: 'for the consent of the instructor or the department',
  late: 'for a late change',
  waiver: 'to be excused from the prerequisite',
  need: 'to be excused from a requirement',
  substitution: 'to have another course taken for a requirement',
  program: 'to have the program on record put right'
}

export const DECIDER_WORDS: Record<Decider, string> = {
  programAdvisor: 'the program advisor',
  instructor: 'the instructor',
  department: 'the department',
  registrar: 'the registrar'
}

/** Whether two requests are alike: answered with the same words, they would be told the same. */
export const areAlike = (
  one: Pick<DeskRequest, 'kind' | 'section' | 'course' | 'need'>,
  other: Pick<DeskRequest, 'kind' | 'section' | 'course' | 'need'>
): boolean =>
  one.kind === other.kind &&
  // Of each it is another program that is right.
  one.kind !== 'program' &&
  one.section === other.section &&
  one.course === other.course &&
  one.need?.title === other.need?.title

/** A version of a program, to which a student could be moved. */
export interface ProgramVersion {
  id: number
  code: string
  title: string
  catalogYear: string
}
