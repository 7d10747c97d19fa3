import type { Catalog, Term } from '../catalog'
import type { HeldSeat, RecordEntry } from '../degree'
import type { CourseCode, SectionCode } from '../ids'
import type { StudentFacts } from '../route'
import type { Instant } from '../time'
import type { ComponentKind, Holidays, Permissions, Section } from '../week'
import type { DropDates, SessionDates } from './drop'
import type { SignOff, SignOffPolicy } from './signOff'

export interface Hold {
  title: string
  office: string
  amount: number | null
  stopsRegistration: boolean
}

export interface RegistrationFacts {
  /** The instant the decision is for. */
  now: Instant
  catalog: Catalog
  terms: readonly Term[]
  term: Term
  /** From when this student may register; null when no opening is for them. */
  opens: Instant | null
  /** From when nothing can be added any more. */
  closes: Instant
  drop: DropDates
  /** Sessions of the term with dates of their own; in the others those of the term hold. */
  sessions: ReadonlyMap<string, SessionDates>
  student: StudentFacts
  holds: readonly Hold[]
  record: readonly RecordEntry[]
  /** Seats held in every term, and the sections of those in this one. */
  held: readonly HeldSeat[]
  heldSections: readonly Section[]
  /** Courses of which the seat held is given back in the same step in which another one is taken. */
  exchanging: ReadonlySet<CourseCode>
  /** By course: another one whose seat is given up in the step in which this one is taken, and only then. */
  givingUp: ReadonlyMap<CourseCode, CourseCode>
  /** The block the student belongs to. */
  block: string | null
  holidays: Holidays
  loadMost: number
  /** A course earned here with less than this grade may be taken again; null: none that is earned. */
  repeatBelow: string | null
  /** The term's rule, and the approval that was given, ended or not; `changed`: the term is no more as it was signed off. */
  signOff: { policy: SignOffPolicy; given: SignOff | null; changed: boolean }
  /** Whether the terms of registration are accepted, or the term has none. */
  agreed: boolean
  /** What is set aside for this student as of the instant. */
  permissions: Permissions
  /** Courses that are taken only together with another one, by the student's own wish. */
  onlyWith: ReadonlyMap<CourseCode, CourseCode>
  /** Kinds of components the section has in this term, whatever was chosen. */
  componentsOf: (section: SectionCode) => readonly ComponentKind[]
  /** Where an office places the student, with what it says; sections that only an office registers are open to it. */
  placing?: Placing | undefined
}

/** What an office may set aside, by name, where it places students: rules about when and on whose word, none about the course. */
export const OFFICE_OVERRIDES = ['notOpen', 'signOff', 'notAgreed'] as const
export type OfficeOverride = (typeof OFFICE_OVERRIDES)[number]

export interface Placing {
  setAside: ReadonlySet<OfficeOverride>
}
