/**
 * From a route to the question of filling it, and back to planned courses.
 *
 * What is placed stays where it is; what the audit counts stays counted. Only courses that could be of use
 * are looked at: those that an open need takes, and those that they need before them.
 */
import { numberOf, runsIn, type Course, type StudyLevel, type Term } from '../catalog'
import {
  allAttempts,
  isTooLow,
  questionOf,
  type Apart,
  type NeedResult,
  type PlannedCourse,
  type Program,
  type Attempt
} from '../degree'
import type { CourseCode, TermCode } from '../ids'
import {
  coursesIn,
  evaluateRule,
  isBranch,
  leastOf,
  someOf,
  leavesOf,
  ruleOf,
  STANDINGS,
  standingCredits,
  type Rule
} from '../requisites'
import { alignSequence, asOfTerm, blockers, plan, termLoad, termsToPlan, type RouteContext } from '../route'
import {
  NOT_TAKEN,
  TERMS_MOST,
  type FillCourse,
  type Filling,
  type FillProblem,
  type FillRule,
  type Holder
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
  /** Credits of a term that the student takes on at most, below what is allowed; that without it. */
  load?: ((term: Term) => number) | undefined
  /** Fewer credits than this are little in a regular term that others follow; 0 without it. */
  full?: number | undefined
  /** The last term to look at; all known terms without it. */
  until?: TermCode | undefined
  level: StudyLevel
}

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
/** What speaks against taking a course, and for it, beside what is wished: each with its weight in credits or so. */
const COST = { any: 3, credit: 0.3, level: 0.5, permission: 8, behind: 25, filler: 10, suggested: -2 }
/** Numbers below it are preparatory and support courses (common practice). */
const FIRST_LEVEL = 100
/** Courses of a kind that are kept beyond what could be needed of them, should their weeks not fit. */
const SPARE = 6

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

function orderIn(terms: readonly Term[], code: TermCode): number {
  return terms.findIndex((term) => term.code === code)
}

class Question {
  private readonly terms: Term[]
  private readonly programs: readonly Program[]
  private readonly courses: (FillCourse & { of: Course | undefined })[] = []
  private readonly numbers = new Map<string, number>()
  /** Groups of equivalent courses that are on the record or the route. */
  private readonly there = new Set<string>()
  /** What stands in a term ahead, by its number. */
  private readonly standing: { code: CourseCode; number: number }[] = []
  private readonly pull: ReadonlyMap<string, number>
  /** By code, the courses that count as it. */
  private alike: Map<string, Course[]> | undefined
  private readonly behind: ReadonlySet<string>

  constructor(
    private readonly context: RouteContext,
    private readonly wish: FillWish
  ) {
    const future = termsToPlan(context)
    const last = wish.until ? orderIn(future, wish.until) : future.length - 1
    this.terms = future.slice(0, Math.min(TERMS_MOST, last + 1))
    this.programs = context.audits.map((audit) => audit.program)
    this.pull = this.suggested()
    this.behind = this.leftBehind()
  }

  made(): FillQuestion {
    const { attempts, catalog } = this.context
    let before = 0
    for (const attempt of attempts.counted) {
      const at = this.timeOf(attempt)
      if (at < 0 && !attempt.again) before += attempt.credits
      this.stand(attempt.course, at, attempt.credits)
    }
    for (const { course } of attempts.spare) this.there.add(this.groupOf(course))
    for (const course of this.useful()) this.candidate(course)
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
        terms: this.terms.map((term) => this.termOf(term)),
        courses: this.courses.map(({ of: _, ...course }) => course),
        reading: problem,
        root,
        holders,
        before
      },
      courses: this.courses.map((course) => course.of),
      wants: all,
      terms: this.terms
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
    return term === null ? -1 : orderIn(this.terms, term)
  }

  /** Terms in which the programs suggest their courses, from where the student stands. */
  private suggested(): Map<string, number> {
    const found = new Map<string, number>()
    this.programs.forEach(({ spec }, index) => {
      if (!spec.suggested?.length) return
      for (const { planned } of alignSequence(this.context, spec.suggested, index).placed) {
        const at = orderIn(this.terms, planned.term)
        const group = this.groupOf(planned.course)
        if (at >= 0 && !found.has(group)) found.set(group, at)
      }
    })
    return found
  }

  /**
   * Preparatory courses that nothing asks of this student: what stands before a course on the record, or in
   * the place of a test that is met; with all that stands before it in turn.
   */
  private leftBehind(): Set<string> {
    const { catalog, attempts, student } = this.context
    const behind = new Set<string>()
    const all = new Set(attempts.counted.map((attempt) => this.groupOf(attempt.course)))
    const add = (rule: Rule | undefined) => {
      for (const code of coursesIn(rule)) {
        const group = this.groupOf(code)
        if (all.has(group) || behind.has(group)) continue
        behind.add(group)
        add(ruleOf(catalog.maybeCourse(code)?.prerequisite ?? ''))
      }
    }
    const passed = (rule: Rule): void => {
      if (!isBranch(rule)) return
      const byTest = rule.of.some(
        (one) => one.kind === 'test' && (student.tests[one.test] ?? -Infinity) >= one.least
      )
      if (rule.kind === 'any' && byTest) add(rule)
      else for (const one of rule.of) passed(one)
    }
    for (const attempt of attempts.counted)
      if (attempt.status !== 'planned') add(ruleOf(catalog.maybeCourse(attempt.course)?.prerequisite ?? ''))
    for (const course of catalog.courses) {
      const rule = ruleOf(course.prerequisite)
      if (rule) passed(rule)
    }
    return behind
  }

  private stand(course: CourseCode, at: number, credits: number): void {
    this.there.add(this.groupOf(course))
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
    const at = this.terms.find((one) => one.code === term)
    const wanted = this.context.catalog.maybeCourse(course)
    if (number === undefined || !at || !wanted) return
    const lacks = blockers(this.context, course, at).some(
      ({ code }) => code === 'prerequisite' || code === 'corequisite'
    )
    if (lacks) this.courses[number] = { ...this.courses[number]!, rule: this.ruleFor(wanted) }
  }

  /**
   * Wants that could be met by something more: those open now with all others of their choices, and in turn those
   * that hold an attempt which one of these could have.
   */
  private asked(): Set<number> {
    const { attempts, catalog, audits } = this.context
    const there = allAttempts(attempts)
    const { problem, root, all } = questionOf(this.programs, there, catalog, { attempts })
    const found = new Set<number>()
    const openIn = audits.map(
      (audit) =>
        new Set(
          audit.areas.flatMap((area) =>
            area.needs.filter((one) => one.state === 'needed').map((one) => one.need.id)
          )
        )
    )
    all.forEach(({ need, program }, w) => {
      if (openIn[program]!.has(need.id)) found.add(w)
    })
    const under = (one: typeof root): number[] => [
      ...one.wants,
      ...one.choices.flatMap((c) => c.of.flatMap(under))
    ]
    const numberOf = new Map(all.map(({ need, program }, w) => [`${program} ${need.id}`, w]))
    /** The wants where each attempt counts now. */
    const placed = audits.flatMap((audit, program) =>
      audit.areas.flatMap((area) =>
        area.needs.flatMap((result) =>
          result.evidence.map((attempt) => ({
            key: attempt.key,
            w: numberOf.get(`${program} ${result.need.id}`)!
          }))
        )
      )
    )
    const byKey = new Map<string, number[]>()
    for (const { key, w } of placed) byKey.set(key, [...(byKey.get(key) ?? []), w])
    for (let size = -1; size < found.size;) {
      size = found.size
      const choices = (one: typeof root): void => {
        for (const choice of one.choices) {
          const inside = choice.of.flatMap(under)
          if (inside.some((w) => found.has(w))) for (const w of inside) found.add(w)
          for (const branch of choice.of) choices(branch)
        }
      }
      choices(root)
      for (const piece of problem.pieces)
        if (piece.wants.some((w) => found.has(w)))
          for (const w of byKey.get(there[piece.course]!.key) ?? []) found.add(w)
    }
    return found
  }

  /** Courses that a want could take, without those that so many others could stand for that they are never needed. */
  private useful(): Course[] {
    const { catalog } = this.context
    const asked = this.asked()
    if (!asked.size) return []
    const named = new Set(catalog.courses.flatMap(({ prerequisite }) => coursesIn(ruleOf(prerequisite))))
    const open = catalog.courses.filter(
      (course) =>
        course.level === this.wish.level &&
        (!this.isThere(course) || this.isTooLow(course)) &&
        this.termsOf(course)
    )
    const { problem, all } = questionOf(this.programs, open.map(attemptOf), catalog)
    const piecesOf = open.map((): number[] => [])
    problem.pieces.forEach((piece, p) => piecesOf[piece.course]!.push(p))
    const bySubject = problem.wants.some((want) => want.subjects > 0)
    const fitting = open.flatMap((course, i) => {
      const pieces = piecesOf[i]!
      const wants = pieces
        .flatMap((p) => problem.pieces[p]!.wants)
        .filter((w) => asked.has(w) && (!this.isThere(course) || this.isTooLow(course, all[w]!.need)))
      if (!wants.length) return []
      const within = (sets: readonly { pieces: ReadonlySet<number> }[]) =>
        sets.map((set) => Number(pieces.some((p) => set.pieces.has(p)))).join('')
      const kind = [
        course.credits,
        wants.join(),
        within(problem.wants.flatMap((want) => want.including)),
        within(problem.caps),
        bySubject ? problem.pieces[pieces[0]!]!.subject : ''
      ].join(' ')
      const enough = wants.reduce((sum, w) => {
        const { need } = all[w]!
        return (
          sum +
          (need.measure === 'courses' ? need.amount : Math.ceil(need.amount / Math.max(1, course.credits)))
        )
      }, SPARE)
      const plain = course.prerequisite === '' && !catalog.exclusiveWith(course.code).size
      return [{ course, kind, enough, plain, terms: this.termsOf(course), cost: this.costOf(course) }]
    })
    fitting.sort((a, b) => a.cost - b.cost || (a.course.code < b.course.code ? -1 : 1))
    return fitting
      .filter((one, i) => {
        const { code } = one.course
        if (named.has(code) || this.pull.has(this.groupOf(code)) || this.isLiked(one.course)) return true
        const better = fitting.filter(
          (other, k) =>
            k < i && other.plain && other.kind === one.kind && (other.terms & one.terms) === one.terms
        )
        return better.length < one.enough
      })
      .map((one) => one.course)
      .concat(problem.wants.some((want, w) => want.leftover && asked.has(w)) ? [] : this.fillers(open))
  }

  /** Where credits are asked for before a course and no area takes any course: courses for their credits alone, plain ones first. */
  private fillers(open: readonly Course[]): Course[] {
    const credits = this.context.catalog.courses.some(({ prerequisite }) =>
      leavesOf(ruleOf(prerequisite)).some((leaf) => leaf.kind === 'credits' || leaf.kind === 'standing')
    )
    if (!credits) return []
    const isPlain = (course: Course) => Number(course.prerequisite === '')
    return open
      .filter((course) => !this.isThere(course))
      .toSorted((a, b) => isPlain(b) - isPlain(a) || b.credits - a.credits || (a.code < b.code ? -1 : 1))
      .slice(0, FILLERS)
  }

  private isThere(course: Course): boolean {
    if (this.there.has(this.groupOf(course.code))) return true
    return this.isExcluded(course)
  }

  private isExcluded(course: Course): boolean {
    const excluded = this.context.catalog.exclusiveWith(course.code)
    return [...excluded].some((other) => this.there.has(this.groupOf(other)))
  }

  /** Whether the course is earned with too low a grade, and could be repeated: for a need, or for one that it is to have. */
  private isTooLow(course: Course, asked?: NeedResult['need'] | string): boolean {
    const { catalog, attempts } = this.context
    const there = allAttempts(attempts).filter(
      (one) => catalog.groupOf(one.course) === this.groupOf(course.code)
    )
    if (!there.length || course.repeatable || this.isExcluded(course)) return false
    if (typeof asked === 'object') return isTooLow(asked, there, catalog)
    const isLow = (grade: string | null) =>
      grade !== null && (asked === undefined || !catalog.scale.atLeast(grade, asked))
    return there.every((one) => one.status === 'earned' && isLow(one.grade))
  }

  /** The number of a course as a candidate. */
  private candidate(course: Course): number | undefined {
    const known = this.numbers.get(course.code)
    if (known !== undefined) return known
    const group = this.groupOf(course.code)
    const terms = this.termsOf(course)
    if (!terms || (this.isThere(course) && !this.isTooLow(course))) return undefined
    const number = this.courses.length
    this.numbers.set(course.code, number)
    this.courses.push({
      credits: course.credits,
      adds: this.there.has(group) && !course.repeatable ? 0 : course.credits,
      terms,
      rule: undefined,
      excludes: [],
      cost: this.costOf(course),
      pull: this.pull.get(group),
      early: this.earlyOf(course),
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

  private isLiked({ code }: Course): boolean {
    const { subjects, courses } = this.wish
    return subjects.has(code.split(' ')[0]!) || courses?.has(code) === true
  }

  /** What taking the course costs against another one; one that was never seen as it is wished costs most of what is wished. */
  private costOf(course: Course): number {
    const { suits } = this.wish
    const group = this.groupOf(course.code)
    return (
      COST.any +
      COST.credit * course.credits +
      COST.level * Math.max(0, numberOf(course.code) / 100 - 1) +
      (this.isLiked(course) ? 0 : 1) +
      (suits && !suits(course.code) ? 2 : 0) +
      (needsPermission(course) ? COST.permission : 0) +
      (this.behind.has(group) || numberOf(course.code) < FIRST_LEVEL ? COST.behind : 0) +
      (this.pull.has(group) ? COST.suggested : 0)
    )
  }

  /** Lower levels before upper ones; what needs a permission is better late. */
  private earlyOf(course: Course): number {
    return needsPermission(course) ? -3 : Math.max(0, 4 - numberOf(course.code) / 100)
  }

  private termOf(term: Term) {
    const { attempts, loadMost, loadLeast, hoursMost } = this.context
    const standing = termLoad(attempts, term.code)
    const open = this.isOpen(term)
    const hours = hoursMost?.(term)
    const most = Math.min(loadMost(term), this.wish.load?.(term) ?? Infinity)
    const regular = term.season !== 'summer'
    return {
      room: open ? Math.max(0, most - standing) : 0,
      standing,
      credited: attempts.counted.reduce(
        (sum, one) => (one.term === term.code && !one.again ? sum + one.credits : sum),
        0
      ),
      // Two hours of study a week for each credit, as `studyHours` reckons.
      soft: hours === undefined ? most : Math.min(most, hours / 2),
      least: open ? (loadLeast?.(term) ?? 0) : 0,
      full: open && regular ? (this.wish.full ?? 0) : 0,
      regular
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
      const of = parts.filter((one) => one !== TRUE && one !== FALSE)
      const least = leastOf(rule) - parts.filter((one) => one === TRUE).length
      if (least <= 0) return TRUE
      if (of.length < least) return FALSE
      return someOf(least, of)!
    }
    const { catalog, student, terms, attempts } = this.context
    switch (rule.kind) {
      case 'course': {
        const first = this.terms[0]
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
          ...this.countingAs(rule.course)
            .filter(
              (course) => !this.isThere(course) || (rule.leastGrade && this.isTooLow(course, rule.leastGrade))
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
        const first = this.terms[0]
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

  private countingAs(code: CourseCode): Course[] {
    if (!this.alike) {
      this.alike = new Map()
      for (const course of this.context.catalog.courses)
        for (const same of this.context.catalog.sameAs(course.code))
          this.alike.set(same, [...(this.alike.get(same) ?? []), course])
    }
    return this.alike.get(code) ?? []
  }

  private groupOf(code: CourseCode): string {
    return this.context.catalog.groupOf(code)
  }
}

/** Fillers that are looked at. */
const FILLERS = 20

/** A course as it would be planned. */
function attemptOf(course: Course): Attempt {
  return {
    key: `${course.code}@`,
    course: course.code,
    credits: course.credits,
    status: 'planned',
    term: null,
    grade: null,
    origin: 'here',
    detail: 'plain',
    placedByOffice: false
  }
}

/** Whether nothing but a permission leads to the course. */
function needsPermission({ prerequisite }: Course): boolean {
  const asks = (rule: Rule): boolean => {
    if (!isBranch(rule)) return rule.kind === 'permission'
    return rule.of.filter((one) => !asks(one)).length < leastOf(rule)
  }
  const rule = ruleOf(prerequisite)
  return rule !== undefined && asks(rule)
}
