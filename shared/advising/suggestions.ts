/** Changes of a route that an advisor proposes: in order, each read on what the ones before it would make of the route. */
import type { PlannedCourse } from '#core/degree'
import type { RouteChange } from '#core/findings'
import type { TermCode } from '#core/ids'
import { applyChange, rebase, type Rebased, type RebaseFault } from '#core/route'
import type { Instant } from '#core/time'
import type { RouteAnswer } from '#shared/route/responses'
import { count } from '#shared/words'

export const SUGGESTION_STATES = ['waiting', 'accepted', 'declined', 'withdrawn'] as const

export interface Suggestion {
  id: number
  /** Its number in the talk. One that takes the place of another keeps its number. */
  number: number
  by: string
  /** By whoever reads. */
  own: boolean
  at: Instant
  route: number
  change: RouteChange
  /** What was planned of its courses when it was made. */
  before: PlannedCourse[]
  why: string | null
  state: Exclude<(typeof SUGGESTION_STATES)[number], 'withdrawn'>
  answer: { by: string; at: Instant; words: string | null } | null
}

/** What came of an answer: the route's version then, what it came to, and what could not be accepted. */
export interface SuggestionsAnswer extends Pick<RouteAnswer, 'route' | 'version'> {
  /** The last change that was made; null where none was. */
  made: RouteAnswer | null
  gone: { suggestion: number; why: string }[]
}

/** A suggestion that waits, on the route as it is now with what is suggested before it. */
export interface PlacedSuggestion {
  suggestion: Suggestion
  now: Rebased
  /** The route without it and with it; the same where it cannot be made. */
  before: readonly PlannedCourse[]
  after: readonly PlannedCourse[]
}

/** Those that wait, in order, each on top of the ones before; `courses` is what is planned now. */
export function placeSuggestions(
  suggestions: readonly Suggestion[],
  courses: readonly PlannedCourse[],
  open: (term: TermCode) => boolean
): PlacedSuggestion[] {
  let before = courses
  return suggestions
    .filter((one) => one.state === 'waiting')
    .map((suggestion): PlacedSuggestion => {
      const now = rebase(suggestion.change, suggestion.before, before, open)
      const made = now.is === 'applies' ? applyChange(before, now.change, open) : undefined
      const placed = { suggestion, now, before, after: made?.ok ? made.courses : before }
      before = placed.after
      return placed
    })
}

/** Why a suggestion cannot be made any more. */
export function goneText({ course, why }: { course: string; why: RebaseFault }): string {
  if (why === 'termClosed') return 'nothing can be added to that term any more'
  return why === 'notPlanned'
    ? `${course} is not on the route any more`
    : `${course} stands in several terms now, and which one is meant cannot be told`
}

/** What the student is told of suggestions that wait. */
export const waitingText = (suggestions: readonly Pick<Suggestion, 'by'>[]): string => {
  const by = [...new Set(suggestions.map((one) => one.by))]
  return `${by.join(' and ')} ${by.length === 1 ? 'suggests' : 'suggest'} ${count(suggestions.length, 'change')} to your route`
}
