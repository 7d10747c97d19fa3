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
import { blockers, plan, type RouteContext } from '../route'
import { FillTerms, orderIn } from './fillTerms'
import { NOT_TAKEN, type FillCourse, type Filling, type FillProblem, type Holder } from './problem'
import { FillRules, type StandingCourse } from './rules'
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
  private readonly standing: StandingCourse[] = []
  private readonly rules: FillRules

  constructor(
    private readonly context: RouteContext,
    private readonly wish: FillWish
  ) {
    this.terms = new FillTerms(context, wish)
    this.taste = new CourseTaste(context, wish, this.terms.list)
    this.there = new CoursesThere(context.catalog, context.attempts)
    this.programs = context.audits.map((audit) => audit.program)
    this.rules = new FillRules(context, this.terms.list[0]?.code, this.there, this.standing, (course) =>
      this.candidate(course)
    )
  }

  made(): FillQuestion {
    const { attempts, catalog } = this.context
    let before = 0
    for (const attempt of attempts.counted) {
      const at = this.timeOf(attempt)
      if (at < 0 && !attempt.again) before += attempt.credits
      this.stand(attempt, at)
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
      if (of)
        this.courses[c] = { ...this.courses[c]!, rule: this.rules.of(of), excludes: this.excludesOf(of) }
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

  private stand({ course, credits, again }: Attempt, at: number): void {
    this.there.add(course)
    if (at < 0) return
    this.standing.push({ code: course, number: this.courses.length, again: again ?? false })
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
    if (lacks) this.courses[number] = { ...this.courses[number]!, rule: this.rules.of(wanted) }
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

  private groupOf(code: CourseCode): string {
    return this.context.catalog.groupOf(code)
  }
}
