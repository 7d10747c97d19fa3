/** The line for a full section: who may stand in it, to whom a freed seat is offered, and for how long. */
import type { Refusal, RefusalCode } from '../findings'
import type { CourseCode, SectionCode } from '../ids'
import type { Instant } from '../time'
import { sectionsOf, type Option } from '../week'
import type { LineDecision } from './decide'

const HOUR_MS = 3_600_000
/** Days before classes begin from which offers stand for less long. */
const NEAR_DAYS = 7

/** How a term serves its lines; data of the term. */
export interface LinePolicy {
  /** A seat is offered and has to be accepted, or the first who may take it moves in. */
  serves: 'offer' | 'automatic'
  /** From then on nobody is offered anything any more. */
  closes: Instant
  /** Hours for which an offer stands, and those near the first day of classes. */
  hours: number
  hoursNear: number
}

/** A student's place for an option: in the lines of those of its sections that were full. */
export interface LineFacts {
  now: Instant
  policy: LinePolicy
  /** Courses for which the student stands in a line of the term already. */
  waiting: ReadonlySet<CourseCode>
}

/** What the seats alone make so, and waiting may settle. */
export function isOfSeats(refusal: Refusal): refusal is Extract<Refusal, { code: 'full' | 'reserved' }> {
  return refusal.code === 'full' || refusal.code === 'reserved'
}
/** Settled when the seat is taken: credits waited for count to no limit, and a clash ends by giving up the other course. */
const LATER: ReadonlySet<RefusalCode> = new Set(['load', 'clash'])

export interface LineTaking {
  /** Why the student may not stand in line; with none, they may. */
  refusals: Refusal[]
  /** The sections in whose lines they would stand. */
  lines: SectionCode[]
}

/**
 * Whether a student may stand in line for an option that the decision has judged: everything but the seats has to be
 * right, what is asked when the seat is taken aside.
 */
export function decideLine(facts: LineFacts, option: Option, decision: LineDecision): LineTaking {
  const lines = decision.refusals.filter(isOfSeats).map((one) => one.section)
  const refusals = decision.refusals.filter((one) => !isOfSeats(one) && !LATER.has(one.code))
  if (facts.now >= facts.policy.closes) refusals.push({ code: 'lineClosed', since: facts.policy.closes })
  if (facts.waiting.has(option.course)) refusals.push({ code: 'inLine' })
  for (const { code, waiting, waitCapacity } of sectionsOf(option))
    if (lines.includes(code) && waiting >= waitCapacity)
      refusals.push({ code: 'lineFull', section: code, places: waitCapacity })
  if (!lines.length && !refusals.length) refusals.push({ code: 'seatLeft' })
  return { refusals, lines }
}

/**
 * Whether a freed seat may be offered to somebody in line: nothing but what they can settle by giving up another course
 * stands against it. Where the seat is not offered but taken at once, nothing may.
 */
export function mayBeOffered(decision: LineDecision, serves: LinePolicy['serves']): boolean {
  return decision.refusals.every(({ code }) => serves === 'offer' && LATER.has(code))
}

/**
 * When an offer made now ends: after the hours of the policy, fewer of them from a week before classes begin, and never
 * after the line closes.
 *
 * @param daysAhead days from today to the first day of the term
 */
export function offerEnds(
  { closes, hours, hoursNear }: LinePolicy,
  now: Instant,
  daysAhead: number
): Instant {
  return Math.min(closes, now + (daysAhead <= NEAR_DAYS ? hoursNear : hours) * HOUR_MS)
}
