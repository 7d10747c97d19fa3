/** What stands in a line under each of a student's places. */
import type { TermStanding } from '#core/calendar'
import type { Instant } from '#core/time'
import { routeFigures, type ProgramFigures } from '#shared/degree/figures'
import type { Reading } from '#shared/reading'
import { timeLeft } from '#shared/when'
import { count } from '#shared/words'

/** `48 of 120 credits`; beside a minor or certificate `48 of 120 + 3 of 18`. */
export function degreeState(programs: readonly ProgramFigures[]): string {
  const parts = programs.map((one) => `${one.earned} of ${one.credits}`)
  return parts.length === 1 ? `${parts[0]} credits` : parts.join(' + ')
}

export function routeState(reading: Reading): string {
  const { findings, finish } = routeFigures(reading)
  if (findings) return count(findings, 'finding')
  if (finish) return `finish ${finish.name}`
  return reading.context.planned.length ? 'all clear' : 'nothing planned'
}

/** `settled` of so many `courses` of the term at work have a section or a seat. */
export function weekState(
  work: TermStanding | undefined,
  { courses, settled }: { courses: number; settled: number }
): string {
  if (!work) return ''
  if (!courses) return work.term.name
  return work.adding === 'ended' ? count(courses, 'course') : `${settled} of ${courses} settled`
}

export function registerState(
  work: TermStanding | undefined,
  now: Instant,
  offers: readonly { until: Instant }[] = []
): string {
  if (!work) return ''
  if (offers.length) return `offer ends in ${timeLeft(Math.min(...offers.map((one) => one.until)) - now)}`
  const { state, adding, taken, unsettled, opens } = work
  if (state === 'gradesDue') return 'grades due'
  if (state === 'over') return `${work.term.name} is over`
  if (adding === 'notYet') return `opens in ${timeLeft(opens! - now)}`
  if (adding === 'open' && unsettled) return `open, ${unsettled} to register`
  if (taken) return `${count(taken, 'course')} registered`
  if (adding === 'open') return 'open for you'
  return adding === 'ended' ? 'adding has ended' : 'no opening for you yet'
}
