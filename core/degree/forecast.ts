/**
 * What average the courses still to come have to reach for a target, and figures on progress.
 * Credits are those that carry points for averages, and attempted or earned ones for pace.
 */
import type { GradeTotals } from './grades'
import type { IdleAttempt, Taking } from './taking'

/** Graded attempts that enter an average: what counts, and what was failed and not passed since. */
export function gradedAttempts(
  counted: readonly Taking[],
  idle: readonly IdleAttempt[]
): { grade: string; credits: number }[] {
  const graded = counted.filter((t) => t.grade !== null) as (Taking & { grade: string })[]
  const failed = idle.filter((i) => i.why === 'failed' && !counted.some((t) => t.course === i.entry.course))
  return [...graded, ...failed.map((i) => ({ grade: i.entry.grade!, credits: i.entry.credits }))]
}

export type Forecast =
  | { kind: 'reached'; least: 0 }
  | { kind: 'possible'; least: number }
  | { kind: 'outOfReach'; best: number }
  | { kind: 'nothingLeft' }

/**
 * The least average over `remaining` graded credits with which the target is reached, from the
 * definition of a grade point average: (points + average x remaining) / (credits + remaining) = target.
 * Out of reach when even the scale's best grade would not do; `best` is then the average that would give.
 * @throws RangeError for a target outside the scale or credits below zero.
 */
export function averageNeeded(so: GradeTotals, remaining: number, target: number, most = 4): Forecast {
  if (!(target >= 0 && target <= most))
    throw new RangeError(`a target lies between 0 and ${most}, not at ${target}`)
  if (!(remaining >= 0)) throw new RangeError(`remaining credits cannot be ${remaining}`)
  if (remaining === 0) return { kind: 'nothingLeft' }
  const least = (target * (so.credits + remaining) - so.points) / remaining
  if (least <= 1e-9) return { kind: 'reached', least: 0 }
  if (least > most + 1e-9) {
    return { kind: 'outOfReach', best: (so.points + most * remaining) / (so.credits + remaining) }
  }
  return { kind: 'possible', least }
}

/**
 * Pace of progress: credits completed over credits attempted, as 34 CFR 668.34(b) defines it.
 * Undefined while nothing was attempted. Transferred credits count on both sides, as 668.34(a)(6) says;
 * courses under way are neither.
 */
export function paceOfProgress(
  counted: readonly Taking[],
  idle: readonly IdleAttempt[]
): { completed: number; attempted: number; pace: number } | undefined {
  const completed = counted
    .filter((t) => t.firmness === 'earned')
    .reduce((sum, taking) => sum + taking.credits, 0)
  const attempted = completed + idle.reduce((sum, { entry }) => sum + entry.credits, 0)
  return attempted > 0 ? { completed, attempted, pace: completed / attempted } : undefined
}
