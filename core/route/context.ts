/** What a route is judged by, what speaks against a course in a term, and what a term comes to. */
import { runsIn, type Catalog, type Course, type Term } from '../catalog'
import { allAttempts, type Audit, type PlannedCourse, type Attempt, type Attempts } from '../degree'
import type { RouteChange } from '../findings'
import {
  assumedLeaves,
  evaluateRule,
  missingPart,
  ruleOf,
  splitMissing,
  type Rule,
  type RuleLeaf
} from '../requisites'
import { studyHours } from '../week'
import { asOfTerm, type StudentFacts } from './asOf'
import { applyChange } from './change'
import type { NoSection, Offered } from './offered'
import type { CourseCode, TermCode } from '../ids'

export interface RouteContext {
  catalog: Catalog
  /** In order, past ones included. */
  terms: readonly Term[]
  /** Terms into which courses may still be put, by code. */
  plannable: ReadonlySet<string>
  student: StudentFacts
  attempts: Attempts
  planned: readonly PlannedCourse[]
  /** Planned in terms that take no plans any more. */
  stale?: readonly PlannedCourse[]
  /** Courses that have sections, by published term. */
  running: ReadonlyMap<string, ReadonlySet<string>>
  /** What published terms offer to this student; absent where there is no college behind the record. */
  offered?: Offered | undefined
  /** Most credits of a term. */
  loadMost: (term: Term) => number
  /** Fewest credits of a term in which something is taken; 0 where nothing is said. */
  loadLeast?: (term: Term) => number
  /** Hours a week that the student has for study outside class. */
  hoursMost?: (term: Term) => number | undefined
  /** Terms spent elsewhere, by code. */
  away?: ReadonlyMap<string, 'exchange' | 'leave'>
  /** The term in which the student wants to finish. */
  target?: TermCode | undefined
  audits: readonly Audit[]
}

export type Blocker =
  | { code: 'prerequisite' | 'corequisite'; missing: Rule }
  | { code: 'notOffered'; known: 'sections' | 'pattern' }
  | { code: 'away'; why: 'exchange' | 'leave' }
  /** Its sections are published, and none can be had: none is for the student, or each needs a permission. */
  | { code: NoSection }
  | { code: 'past' }

/** What speaks against a course in a term, leaving the course itself out of what is planned. */
export function blockers(context: RouteContext, code: CourseCode, term: Term): Blocker[] {
  const { catalog, terms, plannable, student, attempts, running, away, offered } = context
  if (!plannable.has(term.code)) return [{ code: 'past' }]
  const found: Blocker[] = []
  const course = catalog.maybeCourse(code)
  if (!course) return found
  const absent = away?.get(term.code)
  if (absent) found.push({ code: 'away', why: absent })
  if (!runsIn(course, term, running)) {
    found.push({
      code: 'notOffered',
      known: term.published && running.has(term.code) ? 'sections' : 'pattern'
    })
  }
  const none = offered?.noSection(code, term.code)
  if (none) found.push({ code: none })
  const rule = ruleOf(course.prerequisite)
  if (rule) {
    const others = allAttempts(attempts).filter((one) => one.course !== code || one.status === 'earned')
    const result = evaluateRule(rule, asOfTerm(term.code, terms, others, student, catalog))
    // Permission is given for a section; it does not speak against planning the course.
    const { before, together } = splitMissing(missingPart(result), (leaf) => leaf.kind === 'permission')
    if (before && !student.waived?.has(code)) found.push({ code: 'prerequisite', missing: before })
    if (together) found.push({ code: 'corequisite', missing: together })
  }
  return found
}

/** Whether the prerequisite of another planned course holds with a planned course, and not without it. */
export function isStep(context: RouteContext, step: PlannedCourse): boolean {
  const { catalog, terms, student } = context
  const all = allAttempts(context.attempts)
  const without = all.filter(
    (one) => !(one.status === 'planned' && one.course === step.course && one.term === step.term)
  )
  return context.planned.some((other) => {
    const rule = ruleOf(catalog.maybeCourse(other.course)?.prerequisite ?? '')
    if (!rule || (other.course === step.course && other.term === step.term)) return false
    const lacks = (attempts: readonly Attempt[]) => {
      const others = attempts.filter((one) => one.course !== other.course || one.status === 'earned')
      return !evaluateRule(rule, asOfTerm(other.term, terms, others, student, catalog)).met
    }
    return lacks(without) && !lacks(all)
  })
}

/** A course under way that later courses count on, and at which grade. */
export interface CountedOn {
  leaf: RuleLeaf
  courses: CourseCode[]
}

/** What is under way without a grade and assumed to end well, each with the planned courses that ask for it. */
export function countedOn(context: RouteContext): CountedOn[] {
  const { catalog, terms, student, attempts } = context
  const underWay = new Set(
    attempts.counted
      .filter((attempt) => attempt.status === 'underWay')
      .map((attempt) => catalog.groupOf(attempt.course))
  )
  const found = new Map<string, CountedOn>()
  for (const term of termsToPlan(context))
    for (const { course } of plannedIn(context, term)) {
      const rule = ruleOf(catalog.maybeCourse(course)?.prerequisite ?? '')
      if (!rule) continue
      for (const leaf of assumedLeaves(
        evaluateRule(rule, asOfTerm(term.code, terms, allAttempts(attempts), student, catalog))
      )) {
        if (leaf.kind !== 'course' || !underWay.has(catalog.groupOf(leaf.course))) continue
        const key = JSON.stringify(leaf)
        const known = found.get(key) ?? { leaf, courses: [] }
        known.courses.push(course)
        found.set(key, known)
      }
    }
  return [...found.values()]
}

/** Credits of a term: held and planned courses, each once. */
export function termLoad(attempts: Attempts, term: TermCode): number {
  return attempts.counted.reduce((sum, attempt) => (attempt.term === term ? sum + attempt.credits : sum), 0)
}

/** Hours of study outside class in a week of the term, were every course in it for the whole term. */
export function termHours(attempts: Attempts, term: TermCode): number {
  const here = attempts.counted.filter((attempt) => attempt.term === term)
  return studyHours(here.map(({ credits }) => ({ credits, half: 'full' })))
}

/** The terms into which courses may still be put, in order. */
export function termsToPlan({ terms, plannable }: Pick<RouteContext, 'terms' | 'plannable'>): Term[] {
  return terms.filter((term) => plannable.has(term.code))
}

export function plannedIn({ planned }: RouteContext, term: Term): PlannedCourse[] {
  return planned.filter((p) => p.term === term.code).sort((a, b) => (a.course < b.course ? -1 : 1))
}

/** A course as it is planned, without a note. */
export function plan({ code, credits }: Course, term: TermCode): PlannedCourse {
  return { course: code, term, credits, note: null, locked: false }
}

/** The route after a change, without a new audit; undefined when the change cannot be made. */
export function contextAfter(context: RouteContext, change: RouteChange): RouteContext | undefined {
  const all = [...context.planned, ...(context.stale ?? [])]
  const changed = applyChange(all, change, () => true)
  if (!changed.ok) return undefined
  const isAhead = (one: PlannedCourse) => context.plannable.has(one.term)
  const planned = changed.courses.filter(isAhead)
  const nameOf = (one: Pick<PlannedCourse, 'course' | 'term'>) => `${one.course}@${one.term}`
  const again = new Set(context.attempts.counted.flatMap((one) => (one.again ? [one.key] : [])))
  const counted = [
    ...context.attempts.counted.filter((attempt) => attempt.status !== 'planned'),
    ...planned.map((one) => ({ ...asAttempt(one), ...(again.has(nameOf(one)) && { again: true }) }))
  ]
  return {
    ...context,
    planned,
    stale: changed.courses.filter((one) => !isAhead(one)),
    attempts: { ...context.attempts, counted }
  }
}

function asAttempt({ course, credits, term }: PlannedCourse): Attempt {
  return {
    key: `${course}@${term}`,
    course,
    credits,
    term,
    status: 'planned',
    grade: null,
    origin: 'here',
    detail: 'plain',
    placedByOffice: false
  }
}
