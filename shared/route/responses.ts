/** What the server answers about routes. */
import type { PlannedCourse } from '#core/degree'
import type { RouteChange } from '#core/findings'
import type { TermCode } from '#core/ids'
import type { Instant } from '#core/time'

export interface RouteView {
  /** Null while there is none yet; it is made by the first change. */
  id: number | null
  name: string
  note: string | null
  chosen: boolean
  version: number
  changedAt: Instant
  changedBy: string
  advisorMayEdit: boolean
  /** The advisor who last looked at it, when, and at which version. */
  seen: { by: string; at: Instant; version: number } | null
  courses: PlannedCourse[]
  /** What undo would take back, and redo make again. */
  undo: RouteChange | null
  redo: RouteChange | null
}

/** What a change of a route has come to. */
export interface RouteAnswer {
  route: number
  version: number
  made: RouteChange
  changedAt: Instant
  changedBy: string
  undo: RouteChange | null
  redo: RouteChange | null
}

/** Told to everybody who looks at a student when a route, or what can be carried, has changed. */
export interface RouteNews {
  by: string
  /** The route's number and version; null when something else has changed. */
  route: number | null
  version: number | null
}

export interface RouteVersion {
  version: number
  kind: 'do' | 'undo' | 'redo'
  change: RouteChange
  at: Instant
  by: string
}

/** What a student can carry in a term; null where nothing is said. */
export interface Carry {
  credits: number | null
  /** Fewest credits of a term in which something is taken. */
  least: number | null
  /** Hours a week for study outside class. */
  hours: number | null
  /** Hours a week of work and family. */
  outside: number | null
  /** The term in which the student wants to finish. */
  target: TermCode | null
  /** Where a term differs, or is spent elsewhere. */
  terms: { term: TermCode; credits: number | null; hours: number | null; away: 'exchange' | 'leave' | null }[]
}
