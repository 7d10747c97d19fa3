/** What the server answers about the run sheet and its receipts. */
import type { Refusal } from '#core/findings'
import type { CourseCode, TermCode } from '#core/ids'
import type { RuleLeaf } from '#core/requisites'
import type { Instant } from '#core/time'
import type { Section } from '#core/week'
import type { Outcome } from './outcomes'

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
  outcome: Outcome
  refusals: Refusal[]
}

export interface Receipt {
  id: number
  at: Instant
  by: string
  /** False while lines are still to be tried. */
  ended: boolean
  lines: ReceiptLine[]
}
