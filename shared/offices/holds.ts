/** Holds, as the office that places and lifts them sees them. */
import type { StudentId } from '#core/ids'
import type { Instant } from '#core/time'

export interface HoldKind {
  id: number
  title: string
  office: string
  howToLift: string
  stopsRegistration: boolean
  stopsTranscript: boolean
  takesAmount: boolean
}

export interface OpenHold {
  id: number
  student: StudentId
  name: string
  number: string
  title: string
  office: string
  amount: number | null
  stopsRegistration: boolean
  stopsTranscript: boolean
  placedAt: Instant
  /** Null where it came from elsewhere. */
  placedBy: string | null
}

export interface HoldsView {
  /** Whose they are; null where of all. */
  office: string | null
  kinds: HoldKind[]
  open: OpenHold[]
}

/** What came of placing one on several: those who have it already are left as they are. */
export interface HoldsPlaced {
  placed: string[]
  already: string[]
}
