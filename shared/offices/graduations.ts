/** An application to graduate, as the registrar sees it. */
import type { StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { GraduationStep } from '#shared/degree/graduation'

export interface GraduationCase {
  id: number
  student: StudentId
  name: string
  number: string
  program: string
  term: TermCode
  askedAt: Instant
  /** What is not done yet. */
  open: GraduationStep[]
  /** Courses of which a seat, or a place in line, is held. */
  seats: string[]
  mayAward: boolean
}
