/**
 * What average the courses still to come have to reach for a target, and figures on progress.
 * Credits are those that carry points for averages, and attempted or earned ones for pace.
 */
import type { GradedAttempt, GradeTotals } from '../grades'
import type { CourseCode, TermCode } from '../ids'
import type { Attempts } from './attempt'

export interface CourseAttempt extends GradedAttempt {
  course: CourseCode
  term: TermCode | null
  campus?: string | null
  mode?: string | null
}

/**
 * Graded attempts that enter an average: what counts, and what was failed and not passed since; where
 * the program counts all attempts, every one. Only grades given here: what is brought in, from elsewhere or by test,
 * is in none whatever grade it carries, and takes none out (common practice).
 */
export function gradedAttempts({ counted, idle, policy, stillAveraged }: Attempts): CourseAttempt[] {
  const others = idle.flatMap(({ entry, why, by }) => {
    const isOpen = why === 'failed' && by === undefined
    const isKept = stillAveraged.has(entry) && why !== 'exclusive'
    return isOpen || isKept || policy === 'all' ? [{ ...entry, why }] : []
  })
  return [...counted, ...others.filter(({ why }) => why !== 'withdrawn' && why !== 'audited')].flatMap(
    (one) => (one.origin === 'here' && one.grade !== null ? [{ ...one, grade: one.grade }] : [])
  )
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
 * an incomplete is attempted and not completed; courses still running are neither, nor what was sat in on.
 */
export function paceOfProgress({
  counted,
  idle
}: Attempts): { completed: number; attempted: number; pace: number } | undefined {
  let completed = 0
  let attempted = 0
  for (const attempt of counted) {
    if (attempt.status === 'earned') completed += attempt.credits
    if (attempt.status === 'earned' || attempt.detail === 'incomplete') attempted += attempt.credits
  }
  for (const { entry, why } of idle) if (why !== 'audited') attempted += entry.credits
  return attempted > 0 ? { completed, attempted, pace: completed / attempted } : undefined
}

export type Enrolment = 'fullTime' | 'threeQuarterTime' | 'halfTime' | 'lessThanHalfTime'

/** Credits of full-time study for an undergraduate (34 CFR 668.2). */
export const FULL_TIME = 12

/** Enrolment status of an undergraduate by the credits of a term (34 CFR 668.2: full time is 12, half time half of it). */
export function enrolmentOf(credits: number): Enrolment {
  if (credits >= FULL_TIME) return 'fullTime'
  if (credits >= 9) return 'threeQuarterTime'
  return credits >= 6 ? 'halfTime' : 'lessThanHalfTime'
}
