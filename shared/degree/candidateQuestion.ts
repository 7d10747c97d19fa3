/** What is asked of the courses that could meet a need, and of the term in which all is met. */
import { takesPlans } from '#core/calendar'
import { type Term } from '#core/catalog'
import { earliestFinish, type Finish } from '#core/chain'
import { allAttempts, type CandidateQuestion } from '#core/degree'
import type { CourseCode } from '#core/ids'
import {
  evaluateRule,
  missingPart,
  ruleOf,
  splitMissing,
  type AsOf,
  type Rule,
  type Standing
} from '#core/requisites'
import { asOfTerm } from '#core/route'
import type { Instant } from '#core/time'
import { type Shelf, momentOf, factorsIn } from '#shared/catalog/shelf'
import { type Reading } from '../reading'

/** The part of a prerequisite that will be missing; permission is a matter of the section. */
function missingBefore(prerequisite: string, asOf: AsOf): Rule | undefined {
  const rule = ruleOf(prerequisite)
  if (!rule) return undefined
  const { before, together } = splitMissing(
    missingPart(evaluateRule(rule, asOf)),
    (leaf) => leaf.kind === 'permission'
  )
  return before ?? together
}

/** What to ask about the courses that could meet a need in a term. */
export function candidateQuestion(reading: Reading, shelf: Shelf, term: Term): CandidateQuestion {
  const { audits, attempts, context } = reading
  const waiting = factorsIn(shelf)
  const known = new Map<CourseCode, Rule | undefined>()
  const asOf = asOfTerm(term.code, shelf.terms, allAttempts(attempts), context.student, shelf.catalog)
  return {
    audits,
    attempts,
    catalog: shelf.catalog,
    term,
    running: shelf.running,
    missing: ({ code, prerequisite }) => {
      if (!known.has(code))
        known.set(code, context.student.waived?.has(code) ? undefined : missingBefore(prerequisite, asOf))
      return known.get(code)
    },
    weight: ({ code }) => {
      const { blocking, delay } = waiting.get(code)!
      return blocking + delay
    }
  }
}

/** Credits of a term that the earliest finish reckons with, where nothing else is said. */
export const USUAL_LOAD = 16

/** The earliest finish of these audits; summers do not count as terms of study. */
export function finishOf(
  reading: Pick<Reading, 'audits' | 'attempts'> & { standing: Standing; now: Instant },
  shelf: Pick<Shelf, 'catalog' | 'terms' | 'running' | 'zone'>,
  load = USUAL_LOAD
): Finish {
  return earliestFinish({
    audits: reading.audits,
    attempts: reading.attempts,
    catalog: shelf.catalog,
    ahead: shelf.terms.filter((term) => takesPlans(term, momentOf(reading.now, shelf.zone))),
    running: shelf.running,
    standing: reading.standing,
    load: (term) => (term.season === 'summer' ? 0 : load)
  })
}
