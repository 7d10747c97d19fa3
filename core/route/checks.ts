/**
 * The checks of a route: every planned course in its term, every term, the whole degree.
 *
 * All findings are collected, in order of term, then course. Each way out is tried before it is
 * offered: after it the finding is gone.
 */
import { runsIn, type Catalog, type Course, type Term } from '../catalog'
import { allAttempts, takes, type Audit, type PlannedCourse, type Attempt, type Attempts } from '../degree'
import type { Finding, RouteChange } from '../findings'
import type { CourseCode, TermCode } from '../ids'
import {
  assumedLeaves,
  evaluateRule,
  leavesOf,
  missingPart,
  ruleOf,
  splitMissing,
  type Rule,
  type RuleLeaf
} from '../requisites'
import { studyHours } from '../week'
import { asOfTerm, type StudentFacts } from './asOf'
import { applyChange } from './change'
import { routeFinish } from './climb'
import type { NoSection, Offered } from './offered'

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

/** Findings before their ways out are known: of a course, of a term. */
type WithoutWays<F> = F extends Finding ? Omit<F, 'ways'> : never
type Found = WithoutWays<Extract<Finding, { course: CourseCode }>>
export type TermFound = WithoutWays<Exclude<Finding, { course: CourseCode }>>

const WAYS = 4
/** Other courses for the same need that are offered, at most. */
const REPLACEMENTS = 2

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

export function checkRoute(context: RouteContext): Finding[] {
  const findings = (context.stale ?? []).map((planned): Finding => {
    const found = { code: 'begun', course: planned.course, term: planned.term } as const
    return { ...found, ways: waysOf(context, planned, found) }
  })
  for (const term of termsToPlan(context)) {
    const here = plannedIn(context, term)
    for (const planned of here)
      for (const found of ofCourse(context, planned, term))
        findings.push({ ...found, ways: waysOf(context, planned, found) })
    for (const found of termFindings(context, term))
      findings.push({ ...found, ways: waysOfTerm(context, here, term, found) })
  }
  const ending = needLeft(context) ?? lateness(context)
  return ending ? [...findings, ending] : findings
}

/** A finding when something is planned, a term to finish in is wanted, and what is needed has no place. */
function needLeft({ audits, planned, target }: RouteContext): Finding | undefined {
  const credits = audits.reduce((sum, audit) => sum + audit.amounts.needed, 0)
  return target && planned.length && credits
    ? { code: 'needLeft', term: target, credits, ways: [] }
    : undefined
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

function plannedIn({ planned }: RouteContext, term: Term): PlannedCourse[] {
  return planned.filter((p) => p.term === term.code).sort((a, b) => (a.course < b.course ? -1 : 1))
}

function ofCourse(context: RouteContext, planned: PlannedCourse, term: Term): Found[] {
  const about = { course: planned.course, term: term.code }
  const isThis = (one: PlannedCourse) => one.course === planned.course && one.term === planned.term
  if (context.attempts.repeats.some(isThis)) return [{ code: 'alreadyThere', ...about }]
  const found = blockers(context, planned.course, term).flatMap((blocker): Found[] =>
    blocker.code === 'past' ? [] : [{ ...blocker, ...about }]
  )
  const why = outsideEverywhere(context.audits, planned.course, term.code)
  return why ? [...found, { code: 'outside', ...about, why }] : found
}

/** What a term comes to: too full, too light, too many hours, no week that fits; without ways out. */
export function termFindings(context: RouteContext, term: Term): TermFound[] {
  const { attempts, loadMost, loadLeast, hoursMost } = context
  const found: TermFound[] = []
  const credits = termLoad(attempts, term.code)
  const most = loadMost(term)
  if (credits > most) found.push({ code: 'load', term: term.code, credits, most })
  const least = loadLeast?.(term) ?? 0
  if (credits > 0 && credits < least && !isLast(context, term))
    found.push({ code: 'lightLoad', term: term.code, credits, least })
  const hours = termHours(attempts, term.code)
  const free = hoursMost?.(term)
  if (free !== undefined && hours > free) found.push({ code: 'hours', term: term.code, hours, most: free })
  const here = attempts.counted
    .filter((attempt) => attempt.term === term.code)
    .map((attempt) => attempt.course)
  const none = context.offered?.noWeek(here, term.code)
  if (none) found.push({ code: 'noWeek', term: term.code, ...none })
  return found
}

/** In its last term a student may take what is left. */
function isLast({ attempts, terms }: RouteContext, term: Term): boolean {
  const used = new Set(attempts.counted.map((attempt) => attempt.term))
  return terms.findLastIndex((one) => used.has(one.code)) === terms.indexOf(term)
}

/** A finding when everything is mapped, and the last course that counts comes after the wanted term. */
function lateness({ audits, terms, target }: RouteContext): Finding | undefined {
  const finish = target && routeFinish(audits, terms)
  const wanted = terms.find((term) => term.code === target)
  if (!finish || !wanted || terms.indexOf(finish) <= terms.indexOf(wanted)) return undefined
  return { code: 'late', term: finish.code, target: wanted.code, ways: [] }
}

/** Why a planned course counts in none of the student's programs; undefined when it counts in one. */
function outsideEverywhere(audits: readonly Audit[], course: CourseCode, term: TermCode) {
  const found = audits.map((a) =>
    a.outside.find((o) => o.attempt.course === course && o.attempt.term === term)
  )
  return found.length && found.every((o) => o) ? found[0]!.why : undefined
}

/** Changes each of which settles the finding of a planned course: the smallest first, taking it off last. */
function waysOf(context: RouteContext, planned: PlannedCourse, found: Found): RouteChange[] {
  const off: RouteChange = { kind: 'remove', planned }
  if (found.code === 'alreadyThere' || found.code === 'outside') return [off]
  const ways = [
    ...bringMissing(context, planned, found),
    ...elsewhere(context, planned),
    ...replaced(context, planned)
  ].filter((way) => {
    const after = contextAfter(context, way)
    return after !== undefined && !isFoundIn(after, planned, found)
  })
  return [...ways.slice(0, WAYS - 1), off]
}

/** Whether the course, wherever it stands now, still has the finding. */
function isFoundIn(context: RouteContext, { course }: PlannedCourse, found: Found): boolean {
  if (found.code === 'begun')
    return (context.stale ?? []).some((one) => one.course === course && one.term === found.term)
  const now = context.planned.find((one) => one.course === course)
  if (!now) return false
  const term = context.terms.find((one) => one.code === now.term)!
  return blockers(context, course, term).some((blocker) => blocker.code === found.code)
}

/** Puts a missing prerequisite or corequisite where it is early enough. */
function bringMissing(context: RouteContext, planned: PlannedCourse, found: Found): RouteChange[] {
  if (!('missing' in found)) return []
  const future = termsToPlan(context)
  const at = future.findIndex((term) => term.code === planned.term)
  return leavesOf(found.missing).flatMap((leaf): RouteChange[] => {
    if (leaf.kind !== 'course') return []
    const wanted = context.catalog.maybeCourse(leaf.course)
    if (!wanted) return []
    const there = context.planned.find((p) => p.course === leaf.course)
    const room = future.slice(0, leaf.sameTerm ? at + 1 : at).reverse()
    const term = room.find((t) => blockers(context, leaf.course, t).length === 0)
    if (!term) return []
    return there
      ? [{ kind: 'move', course: leaf.course, from: there.term, to: term.code }]
      : [{ kind: 'add', planned: plan(wanted, term.code) }]
  })
}

/** The next later term in which the course may stand, or else an earlier one. */
function elsewhere(context: RouteContext, planned: PlannedCourse): RouteChange[] {
  const future = termsToPlan(context)
  const at = future.findIndex((term) => term.code === planned.term)
  const later = [...future.slice(at + 1), ...future.slice(0, Math.max(0, at))]
  const to = later.find((term) => blockers(context, planned.course, term).length === 0)
  return to ? [{ kind: 'move', course: planned.course, from: planned.term, to: to.code }] : []
}

/** Other courses that count toward the same need and may stand in the same term. */
function replaced(context: RouteContext, planned: PlannedCourse): RouteChange[] {
  const { catalog, terms, audits, attempts } = context
  const term = terms.find((one) => one.code === planned.term)
  const key = attempts.counted.find((t) => t.course === planned.course && t.term === planned.term)?.key
  const need = key && audits.map((audit) => audit.whereItCounts.get(key)).find((result) => result)?.need
  if (!term || !need) return []
  const there = new Set([...attempts.counted, ...context.planned].map((one) => catalog.groupOf(one.course)))
  const found: RouteChange[] = []
  for (const course of catalog.courses) {
    if (found.length === REPLACEMENTS) break
    if (there.has(catalog.groupOf(course.code)) || !takes(need, course)) continue
    if (blockers(context, course.code, term).length) continue
    found.push({
      kind: 'several',
      changes: [
        { kind: 'remove', planned },
        { kind: 'add', planned: plan(course, term.code) }
      ]
    })
  }
  return found
}

/** A course as it is planned, without a note. */
export function plan({ code, credits }: Course, term: TermCode): PlannedCourse {
  return { course: code, term, credits, note: null, locked: false }
}

/** Moves that settle the finding of a term: out of one too full or where no week fits, into one too light. */
function waysOfTerm(
  context: RouteContext,
  here: readonly PlannedCourse[],
  term: Term,
  found: TermFound
): RouteChange[] {
  const future = termsToPlan(context)
  const movable = (
    found.code === 'lightLoad' ? context.planned.filter((p) => p.term !== term.code) : here
  ).filter(
    (planned) => !planned.locked && (found.code !== 'noWeek' || found.courses.includes(planned.course))
  )
  const moves = movable.flatMap((planned): RouteChange[] => {
    const to =
      found.code === 'lightLoad'
        ? fits(context, planned, term) && term
        : future.find((other) => other.code !== term.code && fits(context, planned, other))
    return to ? [{ kind: 'move', course: planned.course, from: planned.term, to: to.code }] : []
  })
  const others =
    found.code === 'noWeek'
      ? [
          ...movable.flatMap((planned) => replaced(context, planned)),
          ...movable.map((planned): RouteChange => ({ kind: 'remove', planned }))
        ]
      : []
  const ways: RouteChange[] = []
  for (const way of [...moves, ...others]) {
    if (ways.length === WAYS - 1) break
    const after = contextAfter(context, way)
    if (after && !termFindings(after, term).some((one) => one.code === found.code)) ways.push(way)
  }
  return ways
}

/** Whether a planned course may move to a term without making that one too full. */
function fits(context: RouteContext, planned: PlannedCourse, term: Term): boolean {
  return (
    termLoad(context.attempts, term.code) + planned.credits <= context.loadMost(term) &&
    blockers(context, planned.course, term).length === 0
  )
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
