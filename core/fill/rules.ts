/** Prerequisites as the question of filling has them: over its courses by number, what is settled already left out. */
import type { Course } from '../catalog'
import { allAttempts } from '../degree'
import type { CourseCode, TermCode } from '../ids'
import {
  evaluateRule,
  isBranch,
  leastOf,
  ruleOf,
  someOf,
  STANDINGS,
  standingCredits,
  type Rule
} from '../requisites'
import { asOfTerm, type RouteContext } from '../route'
import type { FillRule } from './problem'
import type { CoursesThere } from './there'

const TRUE: FillRule = { kind: 'all', of: [] }
const FALSE: FillRule = { kind: 'any', of: [] }
/** Fewer than any course gives. */
const LEAST_CREDITS = 0.01

/** That one of these courses is there; in the same term too where `same` says so. */
function anyOf(courses: readonly number[], same: boolean): FillRule {
  const of = courses.map((course): FillRule => ({ kind: 'course', course, same }))
  return of.length > 1 ? { kind: 'any', of } : (of[0] ?? FALSE)
}

/** What stands in a term ahead, by its number. */
export interface StandingCourse {
  code: CourseCode
  number: number
  /** It repeats one that is earned, or is excluded by one: it adds no credits. */
  again: boolean
}

export class FillRules {
  /**
   * @param candidate the number of a course as one that may be added; undefined where it may not
   */
  constructor(
    private readonly context: RouteContext,
    private readonly first: TermCode | undefined,
    private readonly there: CoursesThere,
    private readonly standing: readonly StandingCourse[],
    private readonly candidate: (course: Course) => number | undefined
  ) {}

  /** The rule of a candidate; a course that it could not do without is undefined where nothing can be done. */
  of(course: Course): FillRule | undefined {
    const rule = ruleOf(course.prerequisite)
    if (!rule || this.context.student.waived?.has(course.code)) return undefined
    const made = this.translate(rule)
    return made === TRUE ? undefined : made
  }

  private translate(rule: Rule): FillRule {
    if (isBranch(rule)) {
      const parts = rule.of.map((one) => this.translate(one))
      const of = parts.filter((one) => one !== TRUE && one !== FALSE)
      const least = leastOf(rule) - parts.filter((one) => one === TRUE).length
      if (least <= 0) return TRUE
      if (of.length < least) return FALSE
      return someOf(least, of)!
    }
    const { student } = this.context
    switch (rule.kind) {
      case 'course': {
        const { catalog, attempts } = this.context
        const { first } = this
        if (!first) return FALSE
        const settled = evaluateRule(rule, this.asOf(first))
        if (
          settled.met &&
          !(rule.sameTerm && attempts.counted.some((t) => t.course === rule.course && t.term === first))
        )
          return TRUE
        // What stands on the route, and what could be added: each course that counts as the one asked for.
        const numbers = [
          ...this.standing
            .filter(({ code }) => catalog.sameAs(code).includes(rule.course))
            .map(({ number }) => number),
          ...catalog
            .countingAs(rule.course)
            .filter(
              (course) =>
                !this.there.isTaken(course) ||
                (rule.leastGrade && this.there.isTooLow(course, rule.leastGrade))
            )
            .flatMap((course) => this.candidate(course) ?? [])
        ]
        return anyOf(numbers, rule.sameTerm)
      }
      case 'credits':
        return { kind: 'credits', credits: rule.credits }
      case 'standing': {
        if (STANDINGS.indexOf(student.standing) >= STANDINGS.indexOf(rule.standing)) return TRUE
        const least = standingCredits(rule.standing)
        return Number.isFinite(least) ? { kind: 'credits', credits: least } : FALSE
      }
      case 'test':
      case 'program':
        return this.first && evaluateRule(rule, this.asOf(this.first)).met ? TRUE : FALSE
      case 'average':
        return this.averageRule(rule)
      // Permission is given for a section; it does not speak against planning the course.
      case 'permission':
        return TRUE
    }
  }

  /** An average that is not there yet holds once a grade is still to come that enters it. */
  private averageRule(rule: Extract<Rule, { kind: 'average' }>): FillRule {
    if (!this.first) return FALSE
    const asOf = this.asOf(this.first)
    if (evaluateRule(rule, asOf).met) return TRUE
    if (!rule.courses) return { kind: 'credits', credits: asOf.creditsByThen + LEAST_CREDITS }
    const { catalog } = this.context
    const enters = (code: CourseCode) => catalog.sameAs(code).some((one) => rule.courses!.includes(one))
    const numbers = [
      ...this.standing.filter(({ code, again }) => !again && enters(code)).map(({ number }) => number),
      ...catalog.courses
        .filter((course) => enters(course.code) && !this.there.isTaken(course))
        .flatMap((course) => this.candidate(course) ?? [])
    ]
    return anyOf(numbers, false)
  }

  private asOf(first: TermCode) {
    const { catalog, student, terms, attempts } = this.context
    return asOfTerm(first, terms, allAttempts(attempts), student, catalog)
  }
}
