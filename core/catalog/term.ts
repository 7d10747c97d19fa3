import type { TermCode } from '../ids'
import type { IsoDate } from '../time'

/** In the order of a year of study; a term in summer is one that nobody has to spend there. */
export const SEASONS = ['autumn', 'winter', 'spring', 'summer'] as const
export type Season = (typeof SEASONS)[number]

/** A part of a term with dates of its own; both ends are days of the session. */
export interface Session {
  code: string
  name: string
  start: IsoDate
  end: IsoDate
  /** Which lane of a day the session takes on a ribbon. */
  half: 'full' | 'first' | 'second' | 'other'
}

export interface Term {
  code: TermCode
  name: string
  season: Season
  /** The calendar year in which the term begins. */
  year: number
  start: IsoDate
  end: IsoDate
  /** Sections can be seen. A term further ahead is known by its dates only. */
  published: boolean
}

/** Terms in order of their first day. */
export function byStart(a: Term, b: Term): number {
  return a.start < b.start ? -1 : a.start > b.start ? 1 : 0
}

export type TermPhase = 'past' | 'current' | 'future'

/** Where a term lies for somebody standing at `today`; its last day still belongs to it. */
export function phaseOf(term: Pick<Term, 'start' | 'end'>, today: IsoDate): TermPhase {
  if (term.end < today) return 'past'
  return term.start > today ? 'future' : 'current'
}
