/** What the server answers beside what belongs to one feature. Instants are milliseconds since 1970, UTC. */
import type { TermCode } from '#core/ids'
import type { Instant } from '#core/time'

export interface ClockView {
  mode: 'standing' | 'running' | 'real'
  now: Instant
}

export interface OpeningView {
  term: TermCode
  title: string
  opens: Instant
}

/** How every refused request answers. */
export interface Problem {
  code: string
  message: string
  fields?: { field: string; message: string }[]
}
