/** What a student takes on in a term, where nothing is said: their own pace, not the most that is allowed. */
import type { StudentView } from './picture'
import type { Shelf } from './reading'

/** Credits of full-time study for an undergraduate (34 CFR 668.2). */
export const FULL_TIME = 12
/** Credits of a usual term of study, where a program suggests no sequence (common practice). */
const USUAL_TERM = 15

/**
 * Credits of a regular term: as the student says; else for who has always studied part-time the most they took on in
 * a term; else what the program asks for over its usual terms, and one more, since courses do not share evenly.
 */
export function ownLoad(
  { carry, record, programs }: Pick<StudentView, 'carry' | 'record' | 'programs'>,
  { terms }: Pick<Shelf, 'terms'>
): number {
  if (carry.credits !== null) return carry.credits
  const regular = new Set(terms.flatMap((term) => (term.season === 'summer' ? [] : [term.code as string])))
  const taken = new Map<string, number>()
  for (const { term, credits, origin } of record)
    if (term !== null && origin === 'here' && regular.has(term))
      taken.set(term, (taken.get(term) ?? 0) + credits)
  const most = Math.max(0, ...taken.values())
  if (most > 0 && most < FULL_TIME) return Math.max(most, carry.least ?? 0)
  const spec = programs[0]?.spec
  if (!spec) return USUAL_TERM
  const usual = spec.suggested?.length || Math.max(1, Math.round(spec.credits / USUAL_TERM))
  return Math.max(Math.ceil(spec.credits / usual) + 1, FULL_TIME, carry.least ?? 0)
}
