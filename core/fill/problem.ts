/**
 * The question of filling a route, without names: which courses to take and in which term, so that all
 * demands are met and everything legal holds.
 *
 * Terms count from 0; sets of terms are bits of a whole number, so there are 30 of them at most. Credits
 * are whole numbers of the smallest unit that occurs.
 */
export interface FillTerm {
  /** Units that may still be placed here; 0 for a term spent elsewhere. */
  room: number
  /** Units that stand here already. */
  standing: number
  /** More units than this are a finding: too many hours of study. At least `standing` is no promise. */
  soft: number
  /** Fewer units than this, where there are any, are a finding, but for the last term that is used. */
  least: number
}

export type FillRule =
  | { kind: 'all' | 'any'; of: readonly FillRule[] }
  /** The course is taken before, or in the same term at the latest. */
  | { kind: 'course'; course: number; same: boolean }
  /** So many units, those before the first term included, are reached before the term begins. */
  | { kind: 'units'; units: number }

export interface FillCourse {
  weight: number
  /** The terms in which it may stand, as bits. */
  terms: number
  /** What has to be there before it; undefined for nothing. */
  rule: FillRule | undefined
  /** The demands it could serve; one in each layer at most. */
  demands: readonly number[]
  /** How little it is liked: lower is taken rather. */
  cost: number
  /** It stands on the route already, in the one term of `terms`; a rule of its own is to be met by what is added. */
  placed: boolean
}

export interface FillDemand {
  /** Courses, or units. */
  amount: number
  byCourse: boolean
  layer: number
}

export interface FillProblem {
  terms: readonly FillTerm[]
  courses: readonly FillCourse[]
  demands: readonly FillDemand[]
  /** Units reached before the first term. */
  before: number
}

export const TERMS_MOST = 30
/** In a filling: not taken. */
export const NOT_TAKEN = -1

/** What a course gives a demand. */
export function worth(demand: FillDemand, course: FillCourse): number {
  return demand.byCourse ? 1 : course.weight
}

/** Whether the rule holds for a course that stands in term `at`; `term` tells where the others stand. */
export function ruleHolds(
  rule: FillRule,
  at: number,
  term: readonly number[],
  reached: readonly number[]
): boolean {
  switch (rule.kind) {
    case 'all':
      return rule.of.every((one) => ruleHolds(one, at, term, reached))
    case 'any':
      return rule.of.some((one) => ruleHolds(one, at, term, reached))
    case 'course': {
      const there = term[rule.course]!
      return there !== NOT_TAKEN && (rule.same ? there <= at : there < at)
    }
    case 'units':
      return reached[at]! >= rule.units
  }
}

/** Units of each term. */
export function loadsOf({ terms, courses }: FillProblem, term: readonly number[]): number[] {
  const loads = terms.map((one) => one.standing)
  courses.forEach((course, c) => {
    if (term[c]! !== NOT_TAKEN && !course.placed) loads[term[c]!]! += course.weight
  })
  return loads
}

/** Units reached before each term begins. */
function reachedBefore({ before }: FillProblem, loads: readonly number[]): number[] {
  let sum = before
  return loads.map((load) => (sum += load) - load)
}

/** Whether every course stands where it may: its terms, its rule, the room of the term. */
export function isLegal(problem: FillProblem, term: readonly number[]): boolean {
  const loads = loadsOf(problem, term)
  if (problem.terms.some((one, t) => loads[t]! - one.standing > one.room)) return false
  const reached = reachedBefore(problem, loads)
  return problem.courses.every((course, c) => {
    const at = term[c]!
    if (at === NOT_TAKEN) return !course.placed
    if (!(course.terms & (1 << at))) return false
    return !course.rule || ruleHolds(course.rule, at, term, reached)
  })
}

/** The last term in which something stands that was placed anew; -1 without any. */
export function finishOf({ courses }: FillProblem, term: readonly number[]): number {
  return term.reduce((last, at, c) => (courses[c]!.placed ? last : Math.max(last, at)), -1)
}

/** Terms that are too full for the hours there are, or too light. */
export function findingsOf(problem: FillProblem, term: readonly number[]): number[] {
  const loads = loadsOf(problem, term)
  const last = loads.findLastIndex((load) => load > 0)
  return problem.terms.flatMap(({ soft, least }, t) => {
    const load = loads[t]!
    return load > soft || (load > 0 && load < least && t !== last) ? [t] : []
  })
}
