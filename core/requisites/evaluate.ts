/**
 * Judges a prerequisite as of a term and explains it leaf by leaf.
 *
 * What is still under way or only planned for an earlier term counts, and is marked `assumed`: the
 * grade is not there yet.
 */
import {
  STANDINGS,
  isBranch,
  leastOf,
  someOf,
  type Rule,
  type RuleLeaf,
  type Standing,
  type Branch
} from './rule'
import { COMMON_SCALE, hundredths, type GradeScale } from '../grades'
import type { CourseCode } from '../ids'

export interface AsOf {
  /** The grades with which the course will be finished before the term, attempt by attempt; `null` while none is given yet. */
  finishedBefore(course: CourseCode): readonly (string | null)[]
  inSameTerm(course: CourseCode): boolean
  testScore(test: string): number | undefined
  /** The average of what was graded here, of all of it or of these courses; undefined while nothing of it was. Unrounded. */
  average(of?: readonly CourseCode[]): number | undefined
  /** Whether a grade that would enter it is still to come by then. */
  gradeToCome(of?: readonly CourseCode[]): boolean
  standing: Standing
  creditsByThen: number
  programs: readonly string[]
  permitted: boolean
  /** The common scale when none is given. */
  scale?: GradeScale
}

export type LeafResult = { kind: 'leaf'; leaf: RuleLeaf; met: boolean; assumed: boolean }
export type RuleResult = LeafResult | (Branch<RuleResult> & { met: boolean; assumed: boolean })

export function evaluateRule(rule: Rule, asOf: AsOf): RuleResult {
  if (!isBranch(rule)) return { kind: 'leaf', leaf: rule, ...judge(rule, asOf) }
  const of = rule.of.map((part) => evaluateRule(part, asOf))
  const least = leastOf(rule)
  const met = of.filter((r) => r.met).length >= least
  // Certain as soon as so many parts are as have to hold.
  const certain = of.filter((r) => r.met && !r.assumed).length >= least
  return { kind: rule.kind, ...(rule.kind === 'some' && { least }), of, met, assumed: met && !certain }
}

function judge(leaf: RuleLeaf, asOf: AsOf): { met: boolean; assumed: boolean } {
  switch (leaf.kind) {
    case 'course': {
      const grades = asOf.finishedBefore(leaf.course)
      if (grades.some((grade) => grade !== null && isEnough(grade, leaf.leastGrade, asOf.scale)))
        return { met: true, assumed: false }
      if (grades.includes(null)) return { met: true, assumed: true }
      return leaf.sameTerm && asOf.inSameTerm(leaf.course)
        ? { met: true, assumed: true }
        : { met: false, assumed: false }
    }
    case 'test':
      return sure((asOf.testScore(leaf.test) ?? -Infinity) >= leaf.least)
    case 'average': {
      const average = asOf.average(leaf.courses)
      if (average !== undefined && hundredths(average) >= hundredths(leaf.least)) return sure(true)
      const assumed = asOf.gradeToCome(leaf.courses)
      return { met: assumed, assumed }
    }
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
 * The part of the rule that keeps it from holding: of a list what is not met, of a choice of which no way
 * holds all ways, since any of them would do, of `2 of` what is not met and how many of it are still asked for. Undefined when the rule holds.
 */
export function missingPart(result: RuleResult): Rule | undefined {
  if (result.met) return undefined
  if (result.kind === 'leaf') return result.leaf
  const of = result.of.flatMap((part) => missingPart(part) ?? [])
  return someOf(leastOf(result) - (result.of.length - of.length), of)
}

/**
 * A missing part, taken apart: what may be taken in the same term, and the rest, which has to come before.
 * A choice of both is of the second kind. Leaves that `leaveOut` names are passed over.
 */
export function splitMissing(
  missing: Rule | undefined,
  leaveOut: (leaf: RuleLeaf) => boolean = () => false
): { before: Rule | undefined; together: Rule | undefined } {
  const left = missing && without(missing, leaveOut)
  if (!left) return { before: undefined, together: undefined }
  const parts = isBranch(left) && left.kind === 'all' ? left.of : [left]
  const isTogether = (part: Rule) => leavesOf(part).every((leaf) => leaf.kind === 'course' && leaf.sameTerm)
  return {
    before: allOf(parts.filter((part) => !isTogether(part))),
    together: allOf(parts.filter(isTogether))
  }
}

function without(rule: Rule, leaveOut: (leaf: RuleLeaf) => boolean): Rule | undefined {
  if (!isBranch(rule)) return leaveOut(rule) ? undefined : rule
  const of = rule.of.flatMap((part) => without(part, leaveOut) ?? [])
  return someOf(rule.kind === 'all' ? of.length : leastOf(rule), of)
}

function allOf(parts: Rule[]): Rule | undefined {
  return parts.length > 1 ? { kind: 'all', of: parts } : parts[0]
}

/** Every leaf of a rule, in its order. */
export function leavesOf(rule: Rule | undefined): RuleLeaf[] {
  if (!rule) return []
  return isBranch(rule) ? rule.of.flatMap(leavesOf) : [rule]
}

/** The leaves that hold only if something under way or planned is finished as hoped. */
export function assumedLeaves(result: RuleResult): RuleLeaf[] {
  if (!result.met || !result.assumed) return []
  return result.kind === 'leaf' ? [result.leaf] : result.of.flatMap(assumedLeaves)
}

/** Every course that the rule names; with `sameTerm`, those only that may be taken along with it. */
export function coursesIn(rule: Rule | undefined, only: { sameTerm?: boolean } = {}): CourseCode[] {
  return leavesOf(rule).flatMap((leaf) => {
    if (leaf.kind === 'average') return only.sameTerm ? [] : (leaf.courses ?? [])
    return leaf.kind === 'course' && (!only.sameTerm || leaf.sameTerm) ? [leaf.course] : []
  })
}
