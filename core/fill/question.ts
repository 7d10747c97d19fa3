/**
 * From a route to the question of filling it, and back to planned courses.
 *
 * What is placed stays where it is; what the audit counts stays counted. Only courses that could be of use
 * are looked at: those that an open need takes, and those that they need before them.
 */
import type { Course, Term } from '../catalog'
import {
  allAttempts,
  questionOf,
  type Apart,
  type Attempt,
  type NeedResult,
  type PlannedCourse,
  type Program
} from '../degree'
import type { CourseCode } from '../ids'
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
import { asOfTerm, blockers, plan, type RouteContext } from '../route'
import { FillTerms, orderIn } from './fillTerms'
import {
  NOT_TAKEN,
  type FillCourse,
  type Filling,
  type FillProblem,
  type FillRule,
  type Holder
} from './problem'
import { CoursesThere } from './there'
import { attemptOf, UsefulCourses } from './useful'
import { CourseTaste, type FillWish } from './wish'

export interface FillQuestion {
  problem: FillProblem
  /** The course of each course number; undefined for what stands on the route already. */
  courses: readonly (Course | undefined)[]
  /** The program and need of each want. */
  wants: readonly { program: number; need: NeedResult['need'] }[]
  terms: readonly Term[]
}

const TRUE: FillRule = { kind: 'all', of: [] }
const FALSE: FillRule = { kind: 'any', of: [] }
export function fillQuestion(context: RouteContext, wish: FillWish): FillQuestion {
  return new Question(context, wish).made()
}

/** What the filling adds to the route, in order of term. */
export function plannedOf({ courses, terms }: FillQuestion, filling: Filling): PlannedCourse[] {
  return courses
    .flatMap((course, c): PlannedCourse[] => {
      const at = filling[c]!
      if (!course || at === NOT_TAKEN) return []
      return [plan(course, terms[at]!.code)]
    })
    .sort((a, b) => orderIn(terms, a.term) - orderIn(terms, b.term) || (a.course < b.course ? -1 : 1))
}

class Question {
  private readonly terms: FillTerms
  private readonly taste: CourseTaste
  private readonly programs: readonly Program[]
  private readonly courses: (FillCourse & { of: Course | undefined })[] = []
  private readonly numbers = new Map<string, number>()
  private readonly there: CoursesThere
  /** What stands in a term ahead, by its number. */
  private readonly standing: { code: CourseCode; number: number }[] = []

  constructor(
    private readonly context: RouteContext,
    private readonly wish: FillWish
  ) {
    this.terms = new FillTerms(context, wish)
    this.taste = new CourseTaste(context, wish, this.terms.list)
    this.there = new CoursesThere(context.catalog, context.attempts)
    this.programs = context.audits.map((audit) => audit.program)
  }

  made(): FillQuestion {
    const { attempts, catalog } = this.context
    let before = 0
    for (const attempt of attempts.counted) {
      const at = this.timeOf(attempt)
      if (at < 0 && !attempt.again) before += attempt.credits
      this.stand(attempt.course, at, attempt.credits)
    }
    for (const { course } of attempts.spare) this.there.add(course)
    const { context, wish, terms, taste } = this
    for (const course of new UsefulCourses(context, wish, terms, this.there, taste).list())
      this.candidate(course)
    // What a candidate needs before it is a candidate as well, until nothing new comes.
    const idle = new Set(attempts.repeats.map((one) => `${one.course}@${one.term}`))
    for (const planned of this.context.planned)
      if (!idle.has(`${planned.course}@${planned.term}`)) this.mend(planned)
    for (let c = 0; c < this.courses.length; c++) {
      const { of } = this.courses[c]!
      if (of) this.courses[c] = { ...this.courses[c]!, rule: this.ruleFor(of), excludes: this.excludesOf(of) }
    }
    const added = this.courses.flatMap(({ of }, c) => (of ? [{ of, c }] : []))
    const there = allAttempts(attempts)
    const { problem, root, all } = questionOf(
      this.programs,
      [...there, ...added.map(({ of }) => attemptOf(of))],
      catalog,
      {
        attempts: {
          spare: attempts.spare,
          apart: [...attempts.apart, ...this.repeating(added.map(({ of }) => of))]
        }
      }
    )
    const holders: Holder[] = [
      ...there.map((attempt) => ({ at: this.timeOf(attempt) })),
      ...added.map(({ c }) => ({ course: c }))
    ]
    return {
      problem: {
        terms: this.terms.asProblem(),
        courses: this.courses.map(({ of: _, ...course }) => course),
        reading: problem,
        root,
        holders,
        before
      },
      courses: this.courses.map((course) => course.of),
      wants: all,
      terms: this.terms.list
    }
  }

  /** Courses to be added that repeat one with too low a grade: in each layer one of the two counts. */
  private repeating(added: readonly Course[]): Apart[] {
    const { attempts, catalog } = this.context
    return added.flatMap((course) =>
      attempts.counted.flatMap((attempt): Apart[] =>
        !course.repeatable && catalog.groupOf(attempt.course) === this.groupOf(course.code)
          ? [{ keys: [attemptOf(course).key, attempt.key], why: 'again' }]
          : []
      )
    )
  }

  /** The number of the term; -1 for what is before all of them. */
  private timeOf({ term }: Attempt): number {
    return term === null ? -1 : orderIn(this.terms.list, term)
  }

  private stand(course: CourseCode, at: number, credits: number): void {
    this.there.add(course)
    if (at < 0) return
    this.standing.push({ code: course, number: this.courses.length })
    this.courses.push({
      credits,
      adds: 0,
      terms: 1 << at,
      rule: undefined,
      excludes: [],
      cost: 0,
      pull: undefined,
      early: 0,
      placed: true,
      of: undefined
    })
  }

  /** A planned course whose prerequisite is missing asks for it. */
  private mend({ course, term }: PlannedCourse): void {
    const number = this.standing.find((one) => one.code === course)?.number
    const at = this.terms.list.find((one) => one.code === term)
    const wanted = this.context.catalog.maybeCourse(course)
    if (number === undefined || !at || !wanted) return
    const lacks = blockers(this.context, course, at).some(
      ({ code }) => code === 'prerequisite' || code === 'corequisite'
    )
    if (lacks) this.courses[number] = { ...this.courses[number]!, rule: this.ruleFor(wanted) }
  }

  /** The number of a course as a candidate. */
  private candidate(course: Course): number | undefined {
    const known = this.numbers.get(course.code)
    if (known !== undefined) return known
    const group = this.groupOf(course.code)
    const terms = this.terms.of(course)
    if (!terms || (this.there.isTaken(course) && !this.there.isTooLow(course))) return undefined
    const number = this.courses.length
    this.numbers.set(course.code, number)
    this.courses.push({
      credits: course.credits,
      adds: this.there.has(course.code) && !course.repeatable ? 0 : course.credits,
      terms,
      rule: undefined,
      excludes: [],
      cost: this.taste.costOf(course),
      pull: this.taste.pull.get(group),
      early: this.taste.earlyOf(course),
      placed: false,
      of: course
    })
    return number
  }

  /** Candidates of which only this one or they may be taken: those that it excludes, and those that count as it. */
  private excludesOf(course: Course): number[] {
    const { catalog } = this.context
    const excluded = catalog.exclusiveWith(course.code)
    return [...this.numbers].flatMap(([code, number]) => {
      const other = code as CourseCode
      const alike = other !== course.code && this.groupOf(other) === this.groupOf(course.code)
      return excluded.has(other) || (alike && !course.repeatable) ? [number] : []
    })
  }

  /** The rule of a candidate; a course that it could not do without is undefined where nothing can be done. */
  private ruleFor(course: Course): FillRule | undefined {
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
    const { catalog, student, terms, attempts } = this.context
    switch (rule.kind) {
      case 'course': {
        const first = this.terms.list[0]
        if (!first) return FALSE
        const settled = evaluateRule(
          rule,
          asOfTerm(first.code, terms, allAttempts(attempts), student, catalog)
        )
        if (
          settled.met &&
          !(rule.sameTerm && attempts.counted.some((t) => t.course === rule.course && t.term === first.code))
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
        const of = numbers.map((course): FillRule => ({ kind: 'course', course, same: rule.sameTerm }))
        return of.length > 1 ? { kind: 'any', of } : (of[0] ?? FALSE)
      }
      case 'credits':
        return { kind: 'credits', credits: rule.credits }
      case 'standing': {
        if (STANDINGS.indexOf(student.standing) >= STANDINGS.indexOf(rule.standing)) return TRUE
        const least = standingCredits(rule.standing)
        return Number.isFinite(least) ? { kind: 'credits', credits: least } : FALSE
      }
      case 'test':
      case 'program': {
        const first = this.terms.list[0]
        const met =
          first &&
          evaluateRule(rule, asOfTerm(first.code, terms, allAttempts(attempts), student, catalog)).met
        return met ? TRUE : FALSE
      }
      // Permission is given for a section; it does not speak against planning the course.
      case 'permission':
        return TRUE
    }
  }

  private groupOf(code: CourseCode): string {
    return this.context.catalog.groupOf(code)
  }
}
