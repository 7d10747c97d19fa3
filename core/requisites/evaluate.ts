/**
 * Judges a prerequisite as of a term and explains it leaf by leaf.
 *
 * What is still under way or only planned for an earlier term counts, and is marked `assumed`: the
 * grade is not there yet.
 */
import type { Rule, RuleLeaf, Standing } from './rule'
import { STANDINGS, isBranch } from './rule'
import { COMMON_SCALE, type GradeScale } from '../grades'
import type { CourseCode } from '../ids'

export interface AsOf {
  /** Best grade with which the course will be finished before the term; `null` while none is given yet. */
  finishedBefore(course: CourseCode): string | null | undefined
  inSameTerm(course: CourseCode): boolean
  testScore(test: string): number | undefined
  standing: Standing
  creditsByThen: number
  programs: readonly string[]
  permitted: boolean
  /** The common scale when none is given. */
  scale?: GradeScale
}

export type LeafResult = { kind: 'leaf'; leaf: RuleLeaf; met: boolean; assumed: boolean }
export type RuleResult =
  LeafResult | { kind: 'all' | 'any'; of: RuleResult[]; met: boolean; assumed: boolean }

export function evaluateRule(rule: Rule, asOf: AsOf): RuleResult {
  if (!isBranch(rule)) return { kind: 'leaf', leaf: rule, ...judge(rule, asOf) }
  const of = rule.of.map((part) => evaluateRule(part, asOf))
  const met = rule.kind === 'all' ? of.every((r) => r.met) : of.some((r) => r.met)
  // A choice is certain as soon as one of its ways is; a list is certain when all of it is.
  const certain =
    rule.kind === 'all' ? of.every((r) => r.met && !r.assumed) : of.some((r) => r.met && !r.assumed)
  return { kind: rule.kind, of, met, assumed: met && !certain }
}

function judge(leaf: RuleLeaf, asOf: AsOf): { met: boolean; assumed: boolean } {
  switch (leaf.kind) {
    case 'course': {
      const grade = asOf.finishedBefore(leaf.course)
      if (grade === null) return { met: true, assumed: true }
      if (grade !== undefined && isEnough(grade, leaf.leastGrade, asOf.scale))
        return { met: true, assumed: false }
      return leaf.sameTerm && asOf.inSameTerm(leaf.course)
        ? { met: true, assumed: true }
        : { met: false, assumed: false }
    }
    case 'test':
      return sure((asOf.testScore(leaf.test) ?? -Infinity) >= leaf.least)
    case 'standing':
      return sure(STANDINGS.indexOf(asOf.standing) >= STANDINGS.indexOf(leaf.standing))
    case 'credits':
      return sure(asOf.creditsByThen >= leaf.credits)
    case 'program':
      return sure(asOf.programs.includes(leaf.program))
    case 'permission':
      return sure(asOf.permitted)
  }
}

function isEnough(grade: string, least: string | undefined, scale = COMMON_SCALE): boolean {
  return least === undefined ? scale.meaning(grade).result === 'earned' : scale.atLeast(grade, least)
}

const sure = (met: boolean) => ({ met, assumed: false })

/**
 * The leaves that keep the rule from holding. Of a choice of which no way holds, all ways are named,
 * since any of them would do.
 */
export function missingLeaves(result: RuleResult): RuleLeaf[] {
  if (result.met) return []
  return result.kind === 'leaf' ? [result.leaf] : result.of.flatMap(missingLeaves)
}

/** The leaves that hold only if something under way or planned is finished as hoped. */
export function assumedLeaves(result: RuleResult): RuleLeaf[] {
  if (!result.met || !result.assumed) return []
  return result.kind === 'leaf' ? [result.leaf] : result.of.flatMap(assumedLeaves)
}

/** Every course that the rule names; with `sameTerm`, those only that may be taken along with it. */
export function coursesIn(rule: Rule | undefined, only: { sameTerm?: boolean } = {}): CourseCode[] {
  if (!rule) return []
  if (isBranch(rule)) return rule.of.flatMap((part) => coursesIn(part, only))
  return rule.kind === 'course' && (!only.sameTerm || rule.sameTerm) ? [rule.course] : []
}
