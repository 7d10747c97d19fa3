/**
 * Conditions: what a program asks for beside courses that count. They look at what is there and compete
 * for nothing: credits at a level, earned here or among the last ones, an average, a test, a milestone.
 */
import type { Catalog } from '../catalog'
import { gradedAttempts } from './forecast'
import type { Condition, Program } from './program'
import { FIRMNESS, type Firmness, type Taking, type Takings } from './taking'

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
    | { asks: 'average'; least: number; from?: string | undefined }
    | { asks: 'test'; test: string; least: number }
    | { asks: 'milestone' }
  )

/** How far a condition is; `firmness` is that of what meets it, undefined while nothing does. */
export interface ConditionResult {
  spec: ConditionSpec
  firmness: Firmness | undefined
  /** Credits by firmness, for a condition in credits. */
  amounts: Record<Firmness, number> | undefined
  /** Credits ahead of which it is not known yet whether they will count: no section is picked. */
  unknown: number
  /** The average or the score there is. */
  value: number | undefined
}

/** What the record holds beside courses. */
export interface BesideCourses {
  /** Scores by the name of the test. */
  tests: Readonly<Record<string, number>>
  /** Ids of the milestones reached. */
  milestones: ReadonlySet<string>
}

export const NOTHING_BESIDE: BesideCourses = { tests: {}, milestones: new Set() }

/** Every condition of a program. `counts` tells the takings that count in it. */
export function judgeConditions(
  program: Program,
  takings: Takings,
  counts: (taking: Taking) => boolean,
  beside: BesideCourses,
  catalog: Catalog
): ConditionResult[] {
  return program.conditions.map((condition) => judge(condition, takings, counts, beside, catalog))
}

function judge(
  { spec, set }: Condition,
  takings: Takings,
  counts: (taking: Taking) => boolean,
  beside: BesideCourses,
  catalog: Catalog
): ConditionResult {
  const nothing = { spec, firmness: undefined, amounts: undefined, unknown: 0, value: undefined }
  const inSet = (one: Pick<Taking, 'course' | 'campus' | 'mode'>) => {
    const course = catalog.maybeCourse(one.course)
    return course !== undefined && set.surely(course, one)
  }
  const couldBe = (one: Taking) => {
    const course = catalog.maybeCourse(one.course)
    return course !== undefined && set.has(course, one) && !set.surely(course, one)
  }
  switch (spec.asks) {
    case 'credits': {
      const asked = takings.counted.filter((t) => (spec.counting ? counts(t) : !t.again))
      const amounts = creditsBy(onceEach(asked.filter(inSet), catalog), spec)
      const unknown = asked.filter(couldBe).reduce((sum, t) => sum + t.credits, 0)
      let sum = 0
      const firmness = FIRMNESS.find((level) => (sum += amounts[level]) >= spec.least)
      return { ...nothing, firmness, amounts, unknown }
    }
    case 'average': {
      const attempts = gradedAttempts(takings).filter(inSet)
      const value = catalog.scale.average(attempts)
      // Rounded to hundredths, as averages are written.
      const met = value !== undefined && Math.round(value * 100) >= Math.round(spec.least * 100)
      return { ...nothing, firmness: met ? 'earned' : undefined, value }
    }
    case 'test': {
      const value = beside.tests[spec.test]
      return {
        ...nothing,
        firmness: value !== undefined && value >= spec.least ? 'earned' : undefined,
        value
      }
    }
    case 'milestone':
      return { ...nothing, firmness: beside.milestones.has(spec.id) ? 'earned' : undefined }
  }
}

/** Of several attempts of a course that count the firmest, unless each gives credit. */
function onceEach(takings: readonly Taking[], catalog: Catalog): Taking[] {
  const there = new Set<string>()
  return takings.filter((taking) => {
    if (catalog.maybeCourse(taking.course)?.repeatable) return true
    const group = catalog.groupOf(taking.course)
    if (there.has(group)) return false
    there.add(group)
    return true
  })
}

/** Of the newest credits, so many; the course at the edge counts in part. */
function creditsBy(
  takings: readonly Taking[],
  { here, amongLast = Infinity }: { here?: boolean | undefined; amongLast?: number | undefined }
): Record<Firmness, number> {
  const amounts = { earned: 0, underWay: 0, registered: 0, planned: 0 }
  // Softer is later; within one firmness takings are in order of term.
  let room = amongLast
  for (const taking of takings.toReversed()) {
    const credits = Math.min(taking.credits, room)
    room -= credits
    if (!here || taking.origin === 'here') amounts[taking.firmness] += credits
  }
  return amounts
}
