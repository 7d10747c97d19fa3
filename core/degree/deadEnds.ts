/**
 * Whether what a reading leaves open could still be completed, by courses that are not taken yet; and where not, what
 * has to be looked into to find a reading that can.
 *
 * What is left: every course of the catalog that is neither taken nor planned, nor counts as one that is, nor is
 * excluded by one; or may be repeated for credit, or is earned with a grade that is not enough; that runs at all,
 * and whose prerequisite leads back to what can be had. When it runs is not looked at.
 */
import { subjectOf, type Catalog, type Course } from '../catalog'
import { isBranch, leastOf, ruleOf, type Rule, type RuleLeaf } from '../requisites'
import { isMet, membersOf, type Reading } from './best'
import type { BesideCourses } from './conditions'
import { fit, isLeft, takersOf } from './fit'
import type { Question } from './question'
import type { ReadingInput } from './place'
import { PlainChoice, type OpenNeed, type Room } from './plainChoice'
import type { Need, Program } from './program'
import { allAttempts, type Apart, type Attempt } from './attempt'

/** A course as it would be taken, were it. */
interface PossibleAttempt extends Attempt {
  possible: true
}

export const isPossible = (attempt: Attempt): boolean => 'possible' in attempt

export interface DeadEnds {
  possible: Attempt[]
  /** With what is taken, and with each other. */
  apart: Apart[]
  /** Wants that what is left may not suffice for. */
  scarce: ReadonlySet<number>
}

/** Undefined where everything that is open could be completed at once. */
export function deadEnds(input: ReadingInput, question: Question, reading: Reading): DeadEnds | undefined {
  const { problem, all } = question
  const members = membersOf(problem, reading.place)
  const open = all.flatMap((_, w) =>
    reading.active[w] && !problem.wants[w]!.leftover && !isMet(problem, w, members[w]!) ? [w] : []
  )
  if (!open.length) return undefined
  const left = new Left(input)
  const evidence = (w: number) =>
    members[w]!.map((p) => left.attempts[problem.pieces[p]!.course]!).filter((one) => one)
  const counted = new Set(all.flatMap((_, w) => evidence(w).map((one) => input.catalog.groupOf(one.course))))
  if (
    left.completes(
      open.map((w) => ({ ...all[w]!, evidence: evidence(w) })),
      counted
    )
  )
    return undefined
  const asked = all.flatMap(({ need }, w) => (problem.wants[w]!.leftover || need.waived ? [] : [w]))
  const scarce = new Set(
    asked.filter(
      (w) =>
        !left.isPlenty(
          all[w]!,
          asked.map((one) => all[one]!)
        )
    )
  )
  return { ...left.possible([...scarce].map((w) => all[w]!.need)), scarce }
}

class Left {
  /** In the order of the question's attempts. */
  readonly attempts: readonly Attempt[]
  private readonly programs: readonly Program[]
  private readonly catalog: Catalog
  private readonly beside: BesideCourses | undefined
  /** By group, what is taken. */
  private readonly there = new Map<string, Attempt[]>()
  private readonly had = new Map<string, boolean>()

  constructor({ programs, attempts, catalog, beside }: ReadingInput) {
    this.programs = programs
    this.catalog = catalog
    this.beside = beside
    this.attempts = allAttempts(attempts)
    for (const attempt of this.attempts) {
      const group = catalog.groupOf(attempt.course)
      this.there.set(group, [...(this.there.get(group) ?? []), attempt])
    }
  }

  /** The courses left that the need takes. */
  private forNeed(need: Need): Course[] {
    const { catalog } = this
    return takersOf(catalog, need).filter((course) => {
      const there = this.there.get(catalog.groupOf(course.code)) ?? []
      const isExcluded = this.attempts.some((one) => catalog.exclusiveWith(course.code).has(one.course))
      return isLeft(need, course, there, catalog) && !isExcluded && this.canBeHad(course)
    })
  }

  private excludes(course: Course): boolean {
    return this.catalog.exclusiveWith(course.code).size > 0
  }

  private canBeHad(course: Course, asking: readonly string[] = []): boolean {
    const known = this.had.get(course.code)
    if (known !== undefined) return known
    if (!course.offered.seasons.length || asking.includes(course.code)) return false
    const rule = ruleOf(course.prerequisite)
    const can = !rule || this.holds(rule, course, [...asking, course.code])
    // Within a circle of prerequisites a no may be the circle's.
    if (can || !asking.length) this.had.set(course.code, can)
    return can
  }

  private holds(rule: Rule, of: Course, asking: readonly string[]): boolean {
    if (isBranch(rule)) return rule.of.filter((one) => this.holds(one, of, asking)).length >= leastOf(rule)
    switch (rule.kind) {
      case 'course':
        return this.hasOrCan(rule, of, asking)
      case 'test':
        return !this.beside || (this.beside.tests[rule.test] ?? -Infinity) >= rule.least
      case 'program':
        return this.programs.some(({ spec }) => spec.code === rule.program)
      case 'average':
      case 'standing':
      case 'credits':
      case 'permission':
        return true
    }
  }

  private hasOrCan(
    leaf: Extract<RuleLeaf, { kind: 'course' }>,
    of: Course,
    asking: readonly string[]
  ): boolean {
    if (this.attempts.some((one) => this.catalog.sameAs(one.course).includes(leaf.course))) return true
    const excluded = this.catalog.exclusiveWith(of.code)
    return this.catalog
      .countingAs(leaf.course)
      .some((course) => !excluded.has(course.code) && this.canBeHad(course, asking))
  }

  /**
   * Whether the needs can all be completed, each by courses of its own that repeat none of those that count already; a
   * no is not a proof.
   */
  completes(open: readonly OpenNeed[], counted: ReadonlySet<string>): boolean {
    const used = new Set<string>()
    const lists = open.map((one) => ({
      ...one,
      left: this.forNeed(one.need).filter(
        (course) =>
          !this.excludes(course) && (course.repeatable || !counted.has(this.catalog.groupOf(course.code)))
      )
    }))
    /** By course, how many open needs it could go to. */
    const asked = new Map<string, number>()
    for (const { left } of lists) for (const { code } of left) asked.set(code, (asked.get(code) ?? 0) + 1)
    for (const one of lists.toSorted((a, b) => a.left.length - b.left.length)) {
      const free = one.left.filter((course) => !used.has(this.catalog.groupOf(course.code)))
      const room = this.rooms(one.need, one.program, one.evidence, free)
      const chosen = new PlainChoice(this.catalog, one, room, (course) => asked.get(course.code)!).of(free)
      if (!chosen) return false
      for (const course of chosen) if (!course.repeatable) used.add(this.catalog.groupOf(course.code))
    }
    return true
  }

  /** What caps leave for the need, were it the only one to use them. */
  private rooms(need: Need, program: number, evidence: readonly Attempt[], free: readonly Course[]): Room[] {
    const taken = evidence.map((one) => ({ one, course: this.catalog.course(one.course) }))
    const each = () => 1
    const creditsOf = (course: Course) => course.credits
    const atMost = need.atMost.map(({ set, credits, courses }): Room => {
      const within = taken.filter(({ one, course }) => set.has(course, one))
      const has = (course: Course) => set.has(course)
      if (courses !== undefined) return { has, left: courses - within.length, use: each }
      return { has, left: credits! - within.reduce((sum, { one }) => sum + one.credits, 0), use: creditsOf }
    })
    const { perSubject } = need
    const subjects = perSubject === undefined ? [] : [...new Set(free.map(({ code }) => subjectOf(code)))]
    return [
      ...atMost,
      ...subjects.map((subject) => ({
        has: ({ code }: Course) => subjectOf(code) === subject,
        left: perSubject! - taken.filter(({ course }) => subjectOf(course.code) === subject).length,
        use: each
      })),
      // A limit holds for several needs; what others use of it is not looked at here.
      ...this.limitsOn(need, program).map(({ set }) => ({
        has: (course: Course) => set.has(course),
        left: 0,
        use: creditsOf
      }))
    ]
  }

  /** Limits that may keep a course without a grade out of the need. */
  private limitsOn(need: Need, program: number): Program['limits'] {
    return this.programs[program]!.limits.filter((limit) => limit.areas.includes(need.area) && !limit.grades)
  }

  /**
   * Whether so many courses are left for the need that it can be completed whatever all others take: then it is never
   * a dead end.
   */
  isPlenty(
    { need, program }: { need: Need; program: number },
    asked: readonly { need: Need; program: number }[]
  ): boolean {
    const others = asked.filter((one) => one.need !== need)
    const most = others.reduce((sum, one) => sum + this.coursesMost(one.need), 0)
    if (!Number.isFinite(most)) return false
    const plain = this.forNeed(need).filter(
      (course) =>
        !this.excludes(course) &&
        // Where what is taken counts, it leaves no room for its own repeat.
        (course.repeatable || !this.there.has(this.catalog.groupOf(course.code))) &&
        !need.atMost.some(({ set }) => set.has(course)) &&
        !this.limitsOn(need, program).some(({ set }) => set.has(course))
    )
    const suffices = (list: readonly Course[], amount: number) => {
      // Equivalents are one course: the one with fewer credits.
      const inOrder = list.toSorted((a, b) => b.credits - a.credits)
      const once = [...new Map(inOrder.map((course) => [this.catalog.groupOf(course.code), course])).values()]
      const rest = once.toSorted((a, b) => b.credits - a.credits).slice(most)
      return rest.reduce((sum, { credits }) => sum + (need.measure === 'courses' ? 1 : credits), 0) >= amount
    }
    // Of so many courses, those that are there may leave no room for a part.
    if (
      need.subjects ||
      need.perSubject !== undefined ||
      (need.measure === 'courses' && need.including.length)
    )
      return false
    return (
      suffices(plain, need.amount) &&
      need.including.every(({ set, amount }) =>
        suffices(
          plain.filter((course) => set.has(course)),
          amount
        )
      )
    )
  }

  /** Courses that a need may take, at most. */
  private coursesMost(need: Need): number {
    if (need.measure === 'courses') return need.amount
    const credits = [
      ...takersOf(this.catalog, need).map((course) => course.credits),
      ...this.attempts.filter((one) => fit(need, one, this.catalog) === 'fits').map((one) => one.credits)
    ]
    return Math.ceil(need.amount / Math.max(1e-9, Math.min(...credits))) + need.including.length
  }

  /** What is left for these needs, as attempts; what may be repeated for credit as often as they could use it. */
  possible(needs: readonly Need[]): Pick<DeadEnds, 'possible' | 'apart'> {
    const { catalog } = this
    const courses = new Map<Course, number>()
    for (const need of needs)
      for (const course of this.forNeed(need)) {
        const times = course.repeatable
          ? Math.ceil(need.measure === 'courses' ? need.amount : need.amount / Math.max(0.5, course.credits))
          : 1
        courses.set(course, course.repeatable ? (courses.get(course) ?? 0) + times : 1)
      }
    const possible = [...courses].flatMap(([course, times]) =>
      Array.from({ length: times }, (_, n) => possibleOf(course, n))
    )
    const apart: Apart[] = []
    possible.forEach((one, i) => {
      const [group, excluded] = [catalog.groupOf(one.course), catalog.exclusiveWith(one.course)]
      const repeatable = catalog.course(one.course).repeatable
      const both = (other: Attempt, why: Apart['why']) => apart.push({ keys: [one.key, other.key], why })
      for (const other of this.attempts)
        if (!repeatable && catalog.groupOf(other.course) === group) both(other, 'again')
      for (const other of possible.slice(i + 1))
        if (excluded.has(other.course) || (!repeatable && catalog.groupOf(other.course) === group))
          both(other, 'exclusive')
    })
    return { possible, apart }
  }
}

function possibleOf({ code, credits }: Course, n: number): PossibleAttempt {
  return {
    key: `${code}+${n}`,
    course: code,
    credits,
    status: 'planned',
    term: null,
    grade: null,
    origin: 'here',
    detail: 'plain',
    placedByOffice: false,
    possible: true
  }
}
