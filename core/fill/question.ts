/**
 * From a route to the question of filling it, and back to planned courses.
 *
 * What is placed stays where it is; what the audit counts stays counted. Only courses that could be of use
 * are looked at: those that an open need takes, and those that they need before them.
 */
import { runsIn, type Course, type StudyLevel, type Term } from '../catalog'
import { takes, type NeedResult, type PlannedCourse } from '../degree'
import type { CourseCode, TermCode } from '../ids'
import {
  coursesIn,
  evaluateRule,
  isBranch,
  ruleOf,
  STANDINGS,
  standingCredits,
  type Rule
} from '../requisites'
import { asOfTerm, obstacles, plan, termLoad, termsToPlan, type RouteContext } from '../route'
import type { Filling } from './fill'
import {
  NOT_TAKEN,
  TERMS_MOST,
  type FillCourse,
  type FillDemand,
  type FillProblem,
  type FillRule
} from './problem'

/** What the student would like, beside what has to hold. */
export interface FillWish {
  /** Whether summers may be used. */
  summers: boolean
  /** Subjects taken rather than others. */
  subjects: ReadonlySet<string>
  /** Courses taken rather than others. */
  courses?: ReadonlySet<CourseCode> | undefined
  /** Whether a course can be had as the student would like it: online, in the evening, on a campus. */
  suits?: ((course: CourseCode) => boolean) | undefined
  /** The last term to look at; all known terms without it. */
  until?: TermCode | undefined
  level: StudyLevel
}

export interface FillQuestion {
  problem: FillProblem
  /** The course of each course number; undefined for what stands on the route already. */
  courses: readonly (Course | undefined)[]
  demands: readonly { program: number; result: NeedResult }[]
  terms: readonly Term[]
}

/** Half credits are the smallest that occur. */
const UNITS = 2
const TRUE: FillRule = { kind: 'all', of: [] }
const FALSE: FillRule = { kind: 'any', of: [] }

export function fillQuestion(context: RouteContext, wish: FillWish): FillQuestion {
  return new Question(context, wish).made()
}

/** What the filling adds to the route, in order of term. */
export function plannedOf({ courses, terms }: FillQuestion, { term }: Filling): PlannedCourse[] {
  return courses
    .flatMap((course, c): PlannedCourse[] => {
      const at = term[c]!
      if (!course || at === NOT_TAKEN) return []
      return [plan(course, terms[at]!.code)]
    })
    .sort((a, b) => orderIn(terms, a.term) - orderIn(terms, b.term) || (a.course < b.course ? -1 : 1))
}

function orderIn(terms: readonly Term[], code: TermCode): number {
  return terms.findIndex((term) => term.code === code)
}

class Question {
  private readonly terms: Term[]
  private readonly demands: {
    program: number
    result: NeedResult
    demand: FillDemand
    takes: (c: Course) => boolean
  }[] = []
  private readonly courses: (FillCourse & { of: Course | undefined })[] = []
  private readonly numbers = new Map<string, number>()
  /** Groups of equivalent courses that are on the record or the route, by their number; -1 for before all terms. */
  private readonly there = new Map<string, number>()

  constructor(
    private readonly context: RouteContext,
    private readonly wish: FillWish
  ) {
    const future = termsToPlan(context)
    const last = wish.until ? orderIn(future, wish.until) : future.length - 1
    this.terms = future.slice(0, Math.min(TERMS_MOST, last + 1))
  }

  made(): FillQuestion {
    const { takings } = this.context
    let before = 0
    for (const taking of takings.counted) {
      const at = taking.term === null ? -1 : orderIn(this.terms, taking.term)
      if (at < 0) before += units(taking.credits)
      this.stand(taking.course, at, units(taking.credits))
    }
    for (const planned of takings.repeats) {
      const at = orderIn(this.terms, planned.term)
      if (!this.there.has(this.groupOf(planned.course)))
        this.stand(planned.course, at, units(planned.credits))
    }
    this.ask()
    for (const course of this.useful()) this.candidate(course)
    // What a candidate needs before it is a candidate as well, until nothing new comes.
    for (const planned of this.context.planned) this.mend(planned)
    for (let c = 0; c < this.courses.length; c++) {
      const { of } = this.courses[c]!
      if (of) this.courses[c] = { ...this.courses[c]!, rule: this.ruleFor(of) }
    }
    return {
      problem: {
        terms: this.terms.map((term) => this.termOf(term)),
        courses: this.courses.map(({ of: _, ...course }) => course),
        demands: this.demands.map((one) => one.demand),
        before
      },
      courses: this.courses.map((course) => course.of),
      demands: this.demands.map(({ program, result }) => ({ program, result })),
      terms: this.terms
    }
  }

  private stand(course: CourseCode, at: number, weight: number): void {
    const group = this.groupOf(course)
    if (at < 0) {
      this.there.set(group, -1)
      return
    }
    this.there.set(group, this.courses.length)
    this.courses.push({
      weight,
      terms: 1 << at,
      rule: undefined,
      demands: [],
      cost: 0,
      placed: true,
      of: undefined
    })
  }

  /** A planned course whose prerequisite is missing asks for it. */
  private mend({ course, term }: PlannedCourse): void {
    const number = this.there.get(this.groupOf(course))
    const at = this.terms.find((one) => one.code === term)
    const wanted = this.context.catalog.maybeCourse(course)
    if (number === undefined || number < 0 || !at || !wanted) return
    const lacks = obstacles(this.context, course, at).some(
      ({ code }) => code === 'prerequisite' || code === 'corequisite'
    )
    if (lacks) this.courses[number] = { ...this.courses[number]!, rule: this.ruleFor(wanted) }
  }

  /** One demand for what a need lacks; what has to come from a narrower set is one of its own. */
  private ask(): void {
    let layer = 0
    this.context.audits.forEach((audit, program) => {
      const base = layer++
      for (const area of audit.areas) {
        const own = area.area.shares ? layer++ : base
        for (const result of area.needs) {
          if (result.state !== 'needed' || result.missing <= 0) continue
          const { need, missing, lacks } = result
          const byCourse = need.measure === 'courses'
          const amount = (own_: number) => (byCourse ? own_ : units(own_))
          let rest = missing
          for (const part of lacks.parts) {
            const from = need.including.find((one) => one.set.text === part.from)
            const some = Math.min(part.amount, rest)
            if (!from || some <= 0) continue
            rest -= some
            this.demands.push({
              program,
              result,
              demand: { amount: amount(some), byCourse, layer: own },
              takes: (course) => from.set.has(course) && takes(need, course)
            })
          }
          if (rest > 0)
            this.demands.push({
              program,
              result,
              demand: { amount: amount(rest), byCourse, layer: own },
              takes: (course) => takes(need, course)
            })
        }
      }
    })
  }

  /** Courses that a demand takes, without those that so many others could stand for that they are never needed. */
  private useful(): Course[] {
    const { catalog } = this.context
    const asked = new Set(catalog.courses.flatMap(({ prerequisite }) => coursesIn(ruleOf(prerequisite))))
    const fitting = catalog.courses
      .filter((course) => course.level === this.wish.level && !this.isThere(course))
      .map((course) => ({
        course,
        demands: this.demandsOf(course),
        terms: this.termsOf(course),
        plain: course.prerequisite === '',
        cost: this.costOf(course)
      }))
      .filter(({ demands, terms }) => demands.length && terms)
      .sort((a, b) => a.cost - b.cost || (a.course.code < b.course.code ? -1 : 1))
    const enough = this.demands.reduce((sum, { demand }) => sum + demand.amount, 0)
    const alike = new Map<string, number>()
    const kept: typeof fitting = []
    for (const one of fitting) {
      const { course, demands, terms } = one
      const mark = `${course.credits} ${demands.join()} ${terms} ${course.prerequisite}`
      const before = alike.get(mark) ?? 0
      if (!asked.has(course.code) && before >= enough) continue
      alike.set(mark, before + 1)
      kept.push(one)
    }
    return kept
      .filter((one, i) => {
        if (asked.has(one.course.code)) return true
        let better = 0
        for (let k = 0; k < kept.length && better < enough; k++) {
          const other = kept[k]!
          if (k === i || !other.plain || other.course.credits !== one.course.credits) continue
          if ((other.terms & one.terms) !== one.terms || other.cost > one.cost) continue
          if (!one.demands.every((d) => other.demands.includes(d))) continue
          const same = one.plain && other.terms === one.terms && other.demands.length === one.demands.length
          if (!same || k < i) better++
        }
        return better < enough
      })
      .map((one) => one.course)
  }

  private isThere(course: Course): boolean {
    const { catalog } = this.context
    if (this.there.has(this.groupOf(course.code))) return true
    return [...catalog.exclusiveWith(course.code)].some((other) => this.there.has(this.groupOf(other)))
  }

  /** The number of a course as a candidate; of equivalent courses the first one stands for all. */
  private candidate(course: Course): number | undefined {
    const group = this.groupOf(course.code)
    const known = this.numbers.get(group)
    if (known !== undefined) return known
    const terms = this.termsOf(course)
    if (!terms || this.isThere(course)) return undefined
    const number = this.courses.length
    this.numbers.set(group, number)
    this.courses.push({
      weight: units(course.credits),
      terms,
      rule: undefined,
      demands: this.demandsOf(course),
      cost: this.costOf(course),
      placed: false,
      of: course
    })
    return number
  }

  private demandsOf(course: Course): number[] {
    return this.demands.flatMap((one, d) => (one.takes(course) ? [d] : []))
  }

  private termsOf(course: Course): number {
    let bits = 0
    this.terms.forEach((term, t) => {
      const { running, offered } = this.context
      if (!this.isOpen(term) || !runsIn(course, term, running)) return
      if (!offered?.noSection(course.code, term.code)) bits |= 1 << t
    })
    return bits
  }

  private isOpen(term: Term): boolean {
    return !this.context.away?.has(term.code) && (this.wish.summers || term.season !== 'summer')
  }

  /** How many of the wishes the course does not meet; one that was never seen as it is wished counts most. */
  private costOf({ code }: Course): number {
    const { subjects, courses, suits } = this.wish
    const liked = subjects.has(code.split(' ')[0]!) || courses?.has(code)
    return (liked ? 0 : 1) + (suits && !suits(code) ? 2 : 0)
  }

  private termOf(term: Term) {
    const { takings, loadMost, loadLeast, hoursMost } = this.context
    const standing = units(termLoad(takings, term.code))
    const open = this.isOpen(term)
    const hours = hoursMost?.(term)
    const most = units(loadMost(term))
    return {
      room: open ? Math.max(0, most - standing) : 0,
      standing,
      // Two hours of study a week for each credit, as `studyHours` reckons.
      soft: hours === undefined ? most : Math.min(most, units(hours / 2)),
      least: open ? units(loadLeast?.(term) ?? 0) : 0
    }
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
      const [ends, drops] = rule.kind === 'all' ? [FALSE, TRUE] : [TRUE, FALSE]
      if (parts.includes(ends)) return ends
      const of = parts.filter((one) => one !== drops)
      if (!of.length) return drops
      return of.length === 1 ? of[0]! : { kind: rule.kind, of }
    }
    const { catalog, student, terms, takings } = this.context
    switch (rule.kind) {
      case 'course': {
        const first = this.terms[0]
        if (!first) return FALSE
        const settled = evaluateRule(rule, asOfTerm(first.code, terms, takings.counted, student, catalog))
        if (
          settled.met &&
          !(rule.sameTerm && takings.counted.some((t) => t.course === rule.course && t.term === first.code))
        )
          return TRUE
        const at = this.there.get(this.groupOf(rule.course))
        if (at === -1) return FALSE
        const wanted = catalog.maybeCourse(rule.course)
        const number = at ?? (wanted && this.candidate(wanted))
        return number === undefined ? FALSE : { kind: 'course', course: number, same: rule.sameTerm }
      }
      case 'credits':
        return { kind: 'units', units: units(rule.credits) }
      case 'standing': {
        if (STANDINGS.indexOf(student.standing) >= STANDINGS.indexOf(rule.standing)) return TRUE
        const least = standingCredits(rule.standing)
        return Number.isFinite(least) ? { kind: 'units', units: units(least) } : FALSE
      }
      case 'test':
      case 'program': {
        const first = this.terms[0]
        const met =
          first && evaluateRule(rule, asOfTerm(first.code, terms, takings.counted, student, catalog)).met
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

function units(credits: number): number {
  return Math.round(credits * UNITS)
}
