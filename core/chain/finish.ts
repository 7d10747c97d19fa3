/**
 * The earliest term in which a degree could be finished: a lower bound, with what makes it so.
 *
 * For every course the earliest term in which it could be taken follows from its prerequisites (of a
 * list the latest, of a choice the earliest), its seasons and odd or even years. A need cannot be met
 * before as many of its courses as it lacks could be taken; all needs together not before their credits
 * fit into terms. The latest of these is the bound. Method: longest path over the prerequisites, as in
 * critical-path planning (Kelley and Walker 1959); terms for lengths.
 *
 * The surprise: courses are looked at one by one, so that two that exclude each other by their hours, or
 * a full term, can make the true finish later, never earlier.
 */
import { runsIn, subjectOf, type Catalog, type Course, type Term } from '../catalog'
import { takes, type Audit, type NeedResult, type Attempt, type Attempts } from '../degree'
import type { CourseCode } from '../ids'
import {
  isBranch,
  leastOf,
  ruleOf,
  STANDINGS,
  standingCredits,
  type Rule,
  type RuleLeaf,
  type Standing
} from '../requisites'

export interface FinishQuestion {
  audits: readonly Audit[]
  attempts: Attempts
  catalog: Catalog
  /** The terms that have not begun, in order. */
  ahead: readonly Term[]
  running: ReadonlyMap<string, ReadonlySet<string>>
  standing: Standing
  /** Credits of a term at most. */
  load: (term: Term) => number
}

/** A course of a chain and the earliest term in which it could be taken. */
export interface ChainLink {
  course: CourseCode
  term: Term
}

export type Finish =
  | { kind: 'done' }
  /** The chain ends in a course of the need, each link needing the one before. */
  | { kind: 'chain'; term: Term; need: NeedResult; chain: ChainLink[] }
  | { kind: 'credits'; term: Term; credits: number }
  /** Not within the terms that are known. */
  | { kind: 'never'; need: NeedResult | undefined }

/** Courses that are planned count as still to be taken: the bound is that of the degree, not of a route. */
export function earliestFinish(question: FinishQuestion): Finish {
  const settled = question.attempts.counted.filter((attempt) => attempt.status !== 'planned')
  const clock = new EarliestTerms(question, settled)
  const { ahead } = question
  let found: { at: number; because: (term: Term) => Finish } | undefined
  const later = (at: number, because: (term: Term) => Finish) => {
    if (!found || at > found.at) found = { at, because }
  }
  // Registered courses have their terms already.
  for (const attempt of settled) {
    const at = ahead.findIndex((term) => term.code === attempt.term)
    if (attempt.status === 'registered' && at >= 0)
      later(at, (term) => ({ kind: 'credits', term, credits: attempt.credits }))
  }
  let credits = 0
  for (const audit of question.audits) {
    for (const need of audit.areas.flatMap((area) => area.needs)) {
      const lacking = need.amounts.planned + need.amounts.needed
      if (lacking <= 0 && need.state !== 'needed') continue
      if (audit === question.audits[0]) credits += lacking
      const at = clock.whenMet(need)
      if (at.term >= ahead.length) return { kind: 'never', need }
      later(at.term, (term) => ({ kind: 'chain', term, need, chain: clock.chainTo(at.course) }))
    }
  }
  let room = 0
  const full = ahead.findIndex((term) => (room += question.load(term)) >= credits)
  if (credits > 0 && full < 0) return { kind: 'never', need: undefined }
  if (credits > 0) later(full, (term) => ({ kind: 'credits', term, credits }))
  return found ? found.because(ahead[found.at]!) : { kind: 'done' }
}

class EarliestTerms {
  private readonly known = new Map<CourseCode, { term: number; after: CourseCode | undefined }>()
  private readonly there = new Map<string, number>()
  private readonly creditsBefore: number[]

  constructor(
    private readonly question: FinishQuestion,
    settled: readonly Attempt[]
  ) {
    const { catalog, ahead, load } = question
    for (const attempt of settled) {
      const at = ahead.findIndex((term) => term.code === attempt.term)
      for (const code of catalog.sameAs(attempt.course)) this.there.set(code, at)
    }
    // Credits by the start of each term, were every term full.
    let sum = settled.reduce((total, attempt) => total + attempt.credits, 0)
    this.creditsBefore = ahead.map((term) => {
      const before = sum
      sum += load(term)
      return before
    })
  }

  /** The term by which enough of a need's courses could have been taken, and the course that comes last. */
  whenMet(result: NeedResult): { term: number; course: CourseCode | undefined } {
    const { catalog, ahead } = this.question
    const { need, evidence } = result
    const firm = evidence.filter((attempt) => attempt.status !== 'planned')
    let lacking = need.amount - firm.reduce((sum, t) => sum + (need.measure === 'courses' ? 1 : t.credits), 0)
    const candidates = catalog.courses
      .filter((course) => takes(need, course) && (course.repeatable || !this.there.has(course.code)))
      .map((course) => ({ course, term: this.earliest(course).term }))
      .sort((a, b) => a.term - b.term || (a.course.code < b.course.code ? -1 : 1))
    const seen = new Set(firm.map((attempt) => subjectOf(attempt.course)))
    let subjects = Math.max(0, (need.subjects ?? 0) - seen.size)
    let last: { term: number; course: CourseCode | undefined } = { term: 0, course: undefined }
    for (const { course, term } of candidates) {
      if (lacking <= 0 && subjects <= 0) return last
      if (lacking > 0 || !seen.has(subjectOf(course.code))) last = { term, course: course.code }
      lacking -= need.measure === 'courses' ? 1 : course.creditsMost
      if (!seen.has(subjectOf(course.code))) subjects--
      seen.add(subjectOf(course.code))
      // As often as it is asked for, at once where several sections differ: no finish is called later than it can be.
      if (course.repeatable) lacking = 0
    }
    return lacking <= 0 && subjects <= 0 ? last : { term: ahead.length, course: undefined }
  }

  /** The number of the first term in which a course could be taken; the number of terms when in none. */
  earliest(course: Course): { term: number; after: CourseCode | undefined } {
    const known = this.known.get(course.code)
    if (known) return known
    const { ahead, running } = this.question
    // A cycle never ends: until it is known better, the course cannot be taken.
    this.known.set(course.code, { term: ahead.length, after: undefined })
    const rule = ruleOf(course.prerequisite)
    const ready = rule ? this.ready(rule) : { term: 0, after: undefined }
    let { term } = ready
    while (term < ahead.length && !runsIn(course, ahead[term]!, running)) term++
    const found = { term, after: ready.after }
    this.known.set(course.code, found)
    return found
  }

  /** The first term at whose start a rule could hold, and the course it hangs on. */
  private ready(rule: Rule): { term: number; after: CourseCode | undefined } {
    if (!isBranch(rule)) return this.leafReady(rule)
    const parts = rule.of.map((part) => this.ready(part))
    if (rule.kind === 'some') return parts.toSorted((a, b) => a.term - b.term)[leastOf(rule) - 1]!
    const better = rule.kind === 'all' ? (a: number, b: number) => a > b : (a: number, b: number) => a < b
    return parts.reduce((best, one) => (better(one.term, best.term) ? one : best))
  }

  private leafReady(leaf: RuleLeaf): { term: number; after: CourseCode | undefined } {
    const { catalog, ahead, standing } = this.question
    const whenCredits = (least: number) => {
      const at = this.creditsBefore.findIndex((credits) => credits >= least)
      return { term: at < 0 ? ahead.length : at, after: undefined }
    }
    switch (leaf.kind) {
      case 'course': {
        const there = this.there.get(leaf.course)
        if (there !== undefined)
          return { term: there + (leaf.sameTerm && there >= 0 ? 0 : 1), after: undefined }
        const course = catalog.maybeCourse(leaf.course)
        if (!course) return { term: ahead.length, after: undefined }
        // A corequisite may wait for this one in turn; it holds nothing up that its own chain does not.
        if (leaf.sameTerm) return { term: 0, after: undefined }
        return { term: this.earliest(course).term + 1, after: leaf.course }
      }
      case 'credits':
        return whenCredits(leaf.credits)
      case 'standing':
        return STANDINGS.indexOf(standing) >= STANDINGS.indexOf(leaf.standing)
          ? { term: 0, after: undefined }
          : whenCredits(standingCredits(leaf.standing))
      // What a test, an average, a program or a permission takes is not a matter of terms.
      case 'test':
      case 'average':
      case 'program':
      case 'permission':
        return { term: 0, after: undefined }
    }
  }

  chainTo(course: CourseCode | undefined): ChainLink[] {
    const chain: ChainLink[] = []
    for (let code = course; code; code = this.known.get(code)?.after) {
      const term = this.question.ahead[this.known.get(code)?.term ?? Infinity]
      if (!term) break
      chain.unshift({ course: code, term })
    }
    return chain
  }
}
