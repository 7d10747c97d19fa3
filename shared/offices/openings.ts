/** An opening as the registrar sees it. */
import type { TermCode } from '#core/ids'
import type { Instant } from '#core/time'

export interface OpeningFigures {
  id: number
  term: TermCode
  title: string
  opens: Instant
  /** Students who may register from then on, and not before. */
  students: number
  /** Of those, whose term waits for a sign-off that they do not have. */
  unsigned: number
  /** Of those, who are held from registering. */
  held: number
}
