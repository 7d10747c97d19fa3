/** What the server answers about the run sheet and its receipts. */
import type { Refusal } from '#core/findings'
import type { CourseCode, TermCode } from '#core/ids'
import type { RuleLeaf } from '#core/requisites'
import type { Instant } from '#core/time'
import type { PermissionKind, Section } from '#core/week'
import type { DropDecision, LineTaking, OfficeOverride } from '#core/registration'
import type { LedgerEntry } from '#shared/charges/responses'
import type { Fallback } from './fallbacks'
import type { LineAction, Outcome } from './outcomes'

export interface SheetLine {
  course: CourseCode
  title: string
  credits: number
  /** Null: planned, no section picked. */
  sections: Section[] | null
  state: 'ready' | 'registered' | 'waiting' | 'unsettled'
  /** The seat of its course given back for it. */
  givesBack: Section[]
  /** The course, of which a seat is held, that is given up once this one is had. */
  givesUp: CourseCode | null
  /** As of the opening, or as of now once it is past. */
  refusals: Refusal[]
  assumed: RuleLeaf[]
  /** Rules that a permission sets aside for it. */
  setAside: PermissionKind[]
  /** Of what is ready and full: whether a place in line can be had instead, as of the same instant. */
  line: LineTaking | null
  /** What is tried after it, and what stands in the way of each. */
  fallbacks: { fallback: Fallback; sections: Section[]; refusals: Refusal[] }[]
  /** Where the student stands in a line of the course. */
  waiting: { sections: Section[]; place: number; of: number } | null
  /** Of a seat that is held: what giving it back comes to now. */
  drop: DropDecision | null
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
  /** Every entry of the term's account; none for somebody else. */
  statement: LedgerEntry[]
}

export interface ReceiptLine {
  course: CourseCode
  /** The course that was asked for, where a fallback of another one was taken. */
  insteadOf: CourseCode | null
  action: LineAction
  sections: string[]
  /** The sections of the seat given back for it. */
  gaveBack: string[]
  outcome: Outcome
  /** Which fallback was taken, counting from 1; then `refusals` say what stood in the way before it. */
  fallback: number | null
  /** Credits that were chosen of a range. */
  credits: number | null
  /** The place in line that was taken. */
  place: number | null
  /** What a drop left on the record. */
  mark: string | null
  refusals: Refusal[]
}

export interface Receipt {
  id: number
  at: Instant
  /** Null where a rule of the term did it. */
  by: string | null
  /** Whether its lines to register went through all together or not at all. */
  whole: boolean
  /** Whether it began by itself at the opening. */
  armed: boolean
  /** How the student agreed, where an office made it for them. */
  consent: string | null
  /** Rules that an office set aside when it placed the student; null where none did. */
  setAside: OfficeOverride[] | null
  /** False while lines are still to be tried. */
  ended: boolean
  lines: ReceiptLine[]
}
