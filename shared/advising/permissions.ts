/** Permissions: asked for by the student, decided by whoever may. */
import type { Refusal } from '#core/findings'
import type { CourseCode, SectionCode, StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { PermissionKind } from '#core/week'

export interface PermissionRequest {
  id: number
  section: SectionCode
  kind: PermissionKind
  state: 'asked' | 'given' | 'declined'
  reason: string
  askedAt: Instant
  forwarded: { by: string; at: Instant } | null
  /** `until`: from then on it sets nothing aside; null for one without an end. */
  answer: { by: string; at: Instant; words: string | null; until: Instant | null } | null
}

/** A request as those see it who may answer it or hand it on. */
export interface WaitingRequest {
  id: number
  student: { id: StudentId; name: string }
  term: TermCode
  course: CourseCode
  section: SectionCode
  number: string
  kind: PermissionKind
  /** What stood in the way when it was asked for. */
  against: Refusal | null
  reason: string
  askedAt: Instant
  forwarded: { by: string; at: Instant } | null
  seats: { taken: number; capacity: number; waiting: number }
  /** Whether whoever reads may decide it. */
  mayDecide: boolean
}

/** Who decides: a program advisor about the student's plan, the registrar in a department's name about its seats. */
const OF_DEPARTMENTS: ReadonlySet<PermissionKind> = new Set(['full', 'consent'])
export const mayDecide = (relation: string, kind: PermissionKind): boolean =>
  relation === 'registrar' || (relation === 'programAdvisor' && !OF_DEPARTMENTS.has(kind))

export const KIND_SENTENCES: Record<PermissionKind, string> = {
  prerequisite: 'to be let in without the prerequisite',
  clash: 'to be let in although hours clash',
  full: 'for a seat more in a full section',
  load: 'to carry more credits',
  consent: 'for the consent of the department'
}
