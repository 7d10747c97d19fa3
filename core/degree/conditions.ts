/**
 * Conditions: what a program asks for beside courses that count. They look at what is there and compete
 * for nothing: credits at a level, earned here or among the last ones, an average, a test, a milestone.
 */
import type { Catalog } from '../catalog'
import { hundredths } from '../grades'
import { gradedAttempts } from './forecast'
import type { ExceptionGrant } from './exceptions'
import type { Condition, Program } from './program'
import { STATUS_ORDER, type AttemptStatus, type Attempt, type Attempts } from './attempt'

interface Named {
  id: string
  title: string
  note?: string | undefined
}

export type ConditionSpec = Named &
  (
    | {
        asks: 'credits'
        least: number
        /** Of this set; any course without it. */
        from?: string | undefined
        /** Only what counts in the program; else everything earned. */
        counting?: boolean | undefined
        /** Only what was taken here, not transferred or by test. */
        here?: boolean | undefined
        /** Only among the last so many credits. */
        amongLast?: number | undefined
      }
    | {
        asks: 'average'
        least: number
        /** Over this set; over everything without it. */
        from?: string | undefined
        /** Over so many courses with the best grades alone; over those there are, where they are fewer. */
        best?: number | undefined
        /** `all`: over every attempt with a grade, those failed or taken again too, whatever the program says of repeats. */
        attempts?: 'all' | undefined
      }
    | { asks: 'test'; test: string; least: number }
    | { asks: 'milestone' }
  )

/** How far a condition is; `status` is that of what meets it, undefined while nothing does. */
export interface ConditionResult {
  spec: ConditionSpec
  status: AttemptStatus | undefined
  /** Credits by status, for a condition in credits. */
  amounts: Record<AttemptStatus, number> | undefined
  /** Credits ahead of which it is not known yet whether they will count: no section is picked. */
  unknown: number
  /** The average or the score there is. */
  value: number | undefined
  /** The exception by which it is met. */
  waived?: ExceptionGrant | undefined
}

/** What the record holds beside courses. */
export interface BesideCourses {
  /** Scores by the name of the test. */
  tests: Readonly<Record<string, number>>
  /** Ids of the milestones reached. */
  milestones: ReadonlySet<string>
}

export const NOTHING_BESIDE: BesideCourses = { tests: {}, milestones: new Set() }

/** Every condition of a program. `counts` tells the attempts that count in it. */
export function judgeConditions(
  program: Program,
  attempts: Attempts,
  counts: (attempt: Attempt) => boolean,
  beside: BesideCourses,
  catalog: Catalog
): ConditionResult[] {
  return program.conditions.map((condition) => {
    const result = judge(condition, attempts, counts, beside, catalog)
    return condition.waived ? { ...result, status: 'earned', waived: condition.waived } : result
  })
}

function judge(
  { spec, set }: Condition,
  attempts: Attempts,
  counts: (attempt: Attempt) => boolean,
  beside: BesideCourses,
  catalog: Catalog
): ConditionResult {
  const nothing = { spec, status: undefined, amounts: undefined, unknown: 0, value: undefined }
  const inSet = (one: Pick<Attempt, 'course' | 'campus' | 'mode'>) => {
    const course = catalog.maybeCourse(one.course)
    return course !== undefined && set.surely(course, one)
  }
  const couldBe = (one: Attempt) => {
    const course = catalog.maybeCourse(one.course)
    return course !== undefined && set.has(course, one) && !set.surely(course, one)
  }
  switch (spec.asks) {
    case 'credits': {
      const asked = attempts.counted.filter((t) => (spec.counting ? counts(t) : !t.again))
      const amounts = creditsBy(onceEach(asked.filter(inSet), catalog), spec)
      const unknown = asked.filter(couldBe).reduce((sum, t) => sum + t.credits, 0)
      let sum = 0
      const status = STATUS_ORDER.find((level) => (sum += amounts[level]) >= spec.least)
      return { ...nothing, status, amounts, unknown }
    }
    case 'average': {
      const policy = spec.attempts ?? attempts.policy
      const graded = gradedAttempts({ ...attempts, policy }).filter(inSet)
      const value = catalog.scale.average(catalog.scale.best(graded, spec.best))
      const met = value !== undefined && hundredths(value) >= hundredths(spec.least)
      return { ...nothing, status: met ? 'earned' : undefined, value }
    }
    case 'test': {
      const value = beside.tests[spec.test]
      return {
        ...nothing,
        status: value !== undefined && value >= spec.least ? 'earned' : undefined,
        value
      }
    }
    case 'milestone':
      return { ...nothing, status: beside.milestones.has(spec.id) ? 'earned' : undefined }
  }
}

/** Of several attempts at a course that count the firmest, unless each gives credit. */
function onceEach(attempts: readonly Attempt[], catalog: Catalog): Attempt[] {
  const there = new Set<string>()
  return attempts.filter((attempt) => {
    if (catalog.maybeCourse(attempt.course)?.repeatable) return true
    const group = catalog.groupOf(attempt.course)
    if (there.has(group)) return false
    there.add(group)
    return true
  })
}

/** Of the newest credits, so many; the course at the edge counts in part. */
function creditsBy(
  attempts: readonly Attempt[],
  { here, amongLast = Infinity }: { here?: boolean | undefined; amongLast?: number | undefined }
): Record<AttemptStatus, number> {
  const amounts = { earned: 0, underWay: 0, registered: 0, planned: 0 }
  // Softer is later; within one status attempts are in order of term.
  let room = amongLast
  for (const attempt of attempts.toReversed()) {
    const credits = Math.min(attempt.credits, room)
    room -= credits
    if (!here || attempt.origin === 'here') amounts[attempt.status] += credits
  }
  return amounts
}
