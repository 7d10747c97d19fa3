/**
 * Findings and refusals as data. A finding is something a check says about a route; a refusal is a
 * reason why a section cannot be registered. Sentences are made from them elsewhere, in one place.
 */
import type { Refused, PlannedCourse } from '../degree'
import type { CourseCode, SectionCode, TermCode } from '../ids'
import type { Rule, Standing } from '../requisites'
import type { Instant } from '../time'
import type { Clash, ComponentKind } from '../week'

/** What may be said of a planned course where it stands. */
export type PlannedDetail = Pick<PlannedCourse, 'credits' | 'note' | 'locked'>

export type SingleChange =
  | { kind: 'add'; planned: PlannedCourse }
  | { kind: 'remove'; planned: PlannedCourse }
  | { kind: 'move'; course: CourseCode; from: TermCode; to: TermCode }
  | { kind: 'edit'; course: CourseCode; term: TermCode; from: PlannedDetail; to: PlannedDetail }

/** A change to a route as a reversible value; several go together or not at all. */
export type RouteChange = SingleChange | { kind: 'several'; changes: SingleChange[] }

interface About {
  course: CourseCode
  term: TermCode
  /** Changes each of which settles the finding. */
  ways: RouteChange[]
}

/** What a check says about a term. */
interface OfTerm {
  term: TermCode
  ways: RouteChange[]
}

export type Finding =
  | (About & { code: 'prerequisite'; missing: Rule })
  | (About & { code: 'corequisite'; missing: Rule })
  | (About & { code: 'notOffered'; known: 'sections' | 'pattern' })
  | (About & { code: 'alreadyThere' })
  | (About & { code: 'outside'; why: Refused })
  | (About & { code: 'away'; why: 'exchange' | 'leave' })
  /** Planned in a term that has begun. */
  | (About & { code: 'begun' })
  /** The term's sections are published, and none of them is open to the student. */
  | (About & { code: 'notForYou' })
  /** Every section of it asks for a permission that the student does not have yet. */
  | (About & { code: 'permissionFirst' })
  /** These courses, with the hours kept free, leave no week without a clash; any fewer of them would. */
  | (OfTerm & { code: 'noWeek'; courses: CourseCode[]; hours: string[] })
  | (OfTerm & { code: 'load'; credits: number; most: number })
  | (OfTerm & { code: 'lightLoad'; credits: number; least: number })
  /** More hours of study a week than the student has. */
  | (OfTerm & { code: 'hours'; hours: number; most: number })
  /** So many credits have no place yet, and the student wants to finish in this term. */
  | (OfTerm & { code: 'needLeft'; credits: number })
  /** The route finishes in this term, later than wanted. */
  | (OfTerm & { code: 'late'; target: TermCode })

export type FindingCode = Finding['code']

/** On what an advisor's sign-off of a term was given. */
export type SignOffCondition =
  /** The course only where the other one, finished before, came to this grade. */
  | { is: 'leastGrade'; course: CourseCode; of: CourseCode; grade: string }
  | { is: 'notBoth'; course: CourseCode; other: CourseCode }
  /** The course only where the other one is held in the same term, or taken with it. */
  | { is: 'onlyWith'; course: CourseCode; other: CourseCode }

export type Refusal =
  | { code: 'notOpen'; opens: Instant | null }
  | { code: 'closed'; since: Instant }
  /** The term goes on; nothing can be added to the session of this section any more. */
  | { code: 'sessionClosed'; section: SectionCode; since: Instant }
  | { code: 'hold'; title: string; office: string; amount: number | null }
  /** Not given, given until an instant that has passed, or given before the term was changed. */
  | { code: 'signOff'; ended: Instant | null; changed: boolean }
  /** The term's terms of registration have not been accepted as they read now. */
  | { code: 'notAgreed' }
  | { code: 'outsideSignOff' }
  /** The sign-off was given on a condition that is not met. */
  | { code: 'condition'; condition: SignOffCondition }
  /** More credits than the sign-off lets in. */
  | { code: 'conditionCredits'; credits: number; most: number }
  | { code: 'cancelled'; section: SectionCode }
  | { code: 'officeOnly'; section: SectionCode }
  | { code: 'componentMissing'; kind: ComponentKind }
  | { code: 'alreadyRegistered' }
  /** An office placed the student there: a seat that is not exchanged. */
  | { code: 'placed' }
  /** With a grade that is not below the one up to which a course may be taken again; null where none may. */
  | { code: 'alreadyEarned'; grade: string | null; below: string | null }
  /** It is under way in another term, or a seat of it is held there; `name` is the term's. */
  | { code: 'alreadyTaken'; term: TermCode; name: string; held: boolean }
  | { code: 'full'; section: SectionCode; kind: ComponentKind; capacity: number; waiting: number }
  /** The seats that are left are kept for others. */
  | { code: 'reserved'; section: SectionCode; kind: ComponentKind; left: number }
  | { code: 'notForYou'; section: SectionCode; programs: readonly string[]; standings: readonly Standing[] }
  | { code: 'permission'; section: SectionCode }
  | { code: 'prerequisite'; missing: Rule }
  | { code: 'corequisite'; missing: Rule }
  | { code: 'clash'; with: CourseCode; clash: Clash }
  | { code: 'load'; credits: number; most: number }
  | { code: 'together'; with: CourseCode }
  /** There is no seat to give back. */
  | { code: 'notHeld' }
  | { code: 'dropEnded'; since: Instant }
  /** A course that is kept asks for this one in the same term. */
  | { code: 'neededBy'; course: CourseCode }
  /** The course that was to be given up for it stays. */
  | { code: 'notGivenUp'; course: CourseCode; why: Refusal }
  | { code: 'lineClosed'; since: Instant }
  | { code: 'lineFull'; section: SectionCode; places: number }
  /** The student stands in a line of this course already. */
  | { code: 'inLine' }
  /** There is a seat, so there is no line. */
  | { code: 'seatLeft' }
  | { code: 'notInLine' }
  | { code: 'offerEnded'; until: Instant }

export type RefusalCode = Refusal['code']
