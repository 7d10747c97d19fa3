/** What is asked of the courses that could meet a need, and of the term in which all is met. */
import { takesPlans } from '#core/calendar'
import type { Term } from '#core/catalog'
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
import { type CatalogContext, momentOf, factorsIn } from '#shared/catalog/context'
import type { Reading } from '../reading'

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
export function candidateQuestion(
  reading: Reading,
  catalogContext: CatalogContext,
  term: Term
): CandidateQuestion {
  const { audits, attempts, context } = reading
  const waiting = factorsIn(catalogContext)
  const known = new Map<CourseCode, Rule | undefined>()
  const asOf = asOfTerm(
    term.code,
    catalogContext.terms,
    allAttempts(attempts),
    context.student,
    catalogContext.catalog
  )
  return {
    audits,
    attempts,
    catalog: catalogContext.catalog,
    term,
    running: catalogContext.running,
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
  catalogContext: Pick<CatalogContext, 'catalog' | 'terms' | 'running' | 'zone'>,
  load = USUAL_LOAD
): Finish {
  return earliestFinish({
    audits: reading.audits,
    attempts: reading.attempts,
    catalog: catalogContext.catalog,
    ahead: catalogContext.terms.filter((term) =>
      takesPlans(term, momentOf(reading.now, catalogContext.zone))
    ),
    running: catalogContext.running,
    standing: reading.standing,
    load: (term) => (term.season === 'summer' ? 0 : load)
  })
}
