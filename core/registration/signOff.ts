/** What an advisor's approval of a term asks of its lines: conditions, a range of credits, an end. */
import type { Refusal, SignOffCondition } from '../findings'
import type { CourseCode } from '../ids'
import { assumedLeaves, evaluateRule, type AsOf, type RuleLeaf } from '../requisites'
import type { Instant } from '../time'

/**
 * Rules about the advisor's sign-off, from the loosest to the strictest. `term`: one opens the term. `strict`: only
 * courses that were signed off. `anew`: the same, and it stands only as long as the term is as it was signed off.
 */
export const SIGN_OFF_POLICIES = ['none', 'term', 'strict', 'anew'] as const
export type SignOffPolicy = (typeof SIGN_OFF_POLICIES)[number]

/** The one of several that asks for the most; undefined of none. */
export const strictestPolicy = (policies: readonly SignOffPolicy[]): SignOffPolicy | undefined =>
  SIGN_OFF_POLICIES.findLast((one) => policies.includes(one))

/** An approval as the decision reads it. */
export interface SignOff {
  courses: readonly CourseCode[]
  /** Courses that may be taken in place of one of them. */
  alternatives: readonly CourseCode[]
  /** Credits that may be held of the term; fewer than were meant stop nothing. */
  creditsMost: number
  conditions: readonly SignOffCondition[]
  /** From this instant on it stands no more; null for one without an end. */
  until: Instant | null
}

/** Whether an approval is of a course, as it was planned or in place of one that was. */
export const isSignedOff = (
  { courses, alternatives }: Pick<SignOff, 'courses' | 'alternatives'>,
  course: CourseCode
): boolean => courses.includes(course) || alternatives.includes(course)

/** Whether an approval has not ended at an instant. */
export const isStanding = ({ until }: Pick<SignOff, 'until'>, now: Instant): boolean =>
  until === null || now < until

/** The approval where it stands at an instant. */
export const standingSignOff = (given: SignOff | null, now: Instant): SignOff | null =>
  given && isStanding(given, now) ? given : null

/**
 * What the conditions say of a course, where it is taken beside others of the term.
 *
 * @param beside courses that are held in the term or go through with it
 * @param asOf what is finished before the term, and how
 */
export function judgeConditions(
  conditions: readonly SignOffCondition[],
  course: CourseCode,
  beside: ReadonlySet<CourseCode>,
  asOf: () => AsOf
): { refusals: Refusal[]; assumed: RuleLeaf[] } {
  const refusals: Refusal[] = []
  const assumed: RuleLeaf[] = []
  for (const condition of conditions) {
    if (condition.is === 'leastGrade') {
      if (condition.course !== course) continue
      const { of, grade } = condition
      const result = evaluateRule({ kind: 'course', course: of, leastGrade: grade, sameTerm: false }, asOf())
      if (result.met) assumed.push(...assumedLeaves(result))
      else refusals.push({ code: 'condition', condition })
    } else if (condition.is === 'notBoth') {
      const other = otherOf(condition, course)
      if (other !== undefined && beside.has(other)) refusals.push({ code: 'condition', condition })
    } else if (condition.course === course && !beside.has(condition.other))
      refusals.push({ code: 'condition', condition })
  }
  return { refusals, assumed }
}

function otherOf({ course, other }: { course: CourseCode; other: CourseCode }, one: CourseCode) {
  if (one === course) return other
  return one === other ? course : undefined
}
