/** The climb: credits that count, summed term by term, for the ridge profile. */
import type { Term } from '../catalog'
import type { Audit } from '../degree'

export interface ClimbPoint {
  term: Term
  /** Credits reached at the end of the term. */
  reached: number
  gained: number
  status: 'earned' | 'underWay' | 'ahead'
}

export interface Climb {
  /** Credits from outside any term: transferred or by test. */
  start: number
  points: ClimbPoint[]
}

/**
 * The climb of one program, from the first to the last term with a course that counts in it. What it reaches
 * is the sum of the audit's own amounts: a course gives as many credits as its need takes.
 */
export function climbOf(audit: Audit | undefined, terms: readonly Term[]): Climb {
  const counted = (audit?.areas ?? [])
    .filter((area) => !area.area.shares)
    .flatMap((area) => area.needs)
    .flatMap(({ evidence, given }) =>
      evidence.map((attempt) => ({ attempt, credits: given[attempt.key] ?? 0 }))
    )
  const sum = (list: typeof counted) => list.reduce((total, one) => total + one.credits, 0)
  const start = sum(counted.filter((one) => one.attempt.term === null))
  const used = terms.map((term) => counted.filter((one) => one.attempt.term === term.code))
  const first = used.findIndex((list) => list.length)
  const last = used.findLastIndex((list) => list.length)
  let reached = start
  const points: ClimbPoint[] = []
  for (let i = Math.max(first, 0); i <= last; i++) {
    const list = used[i]!
    const gained = sum(list)
    const has = (...some: string[]) => list.some((one) => some.includes(one.attempt.status))
    const status = has('registered', 'planned') ? 'ahead' : has('underWay') ? 'underWay' : 'earned'
    if (!gained && terms[i]!.season === 'summer') continue
    reached += gained
    points.push({ term: terms[i]!, reached, gained, status })
  }
  return { start, points }
}

/**
 * The term at whose end all programs are complete: the last one with a course that counts in any of them.
 * Undefined while anything is needed, and where nothing has a term.
 */
export function routeFinish<T extends Term>(audits: readonly Audit[], terms: readonly T[]): T | undefined {
  const needs = audits.flatMap((audit) => audit.areas.flatMap((area) => area.needs))
  if (!audits.length || needs.some((need) => need.state === 'needed')) return undefined
  const used = new Set(needs.flatMap((need) => need.evidence.map((attempt) => attempt.term)))
  return terms.findLast((term) => used.has(term.code))
}
