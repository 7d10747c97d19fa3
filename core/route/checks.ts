/**
 * The checks of a route: every planned course in its term, every term, the whole degree.
 *
 * All findings are collected, in order of term, then course. Each way out is tried before it is
 * offered: after it the finding is gone.
 */
import type { Term } from '../catalog'
import { takes, type Audit, type PlannedCourse } from '../degree'
import type { Finding, RouteChange } from '../findings'
import { leavesOf } from '../requisites'
import { routeFinish } from './climb'
import {
  type RouteContext,
  termsToPlan,
  plannedIn,
  blockers,
  isStep,
  termLoad,
  termHours,
  contextAfter,
  plan
} from './context'
import type { CourseCode, TermCode } from '../ids'

/** Findings before their ways out are known: of a course, of a term. */
type WithoutWays<F> = F extends Finding ? Omit<F, 'ways'> : never

type Found = WithoutWays<Extract<Finding, { course: CourseCode }>>

export type TermFound = WithoutWays<Exclude<Finding, { course: CourseCode }>>

const WAYS = 4

/** Other courses for the same need that are offered, at most. */
const REPLACEMENTS = 2

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

function ofCourse(context: RouteContext, planned: PlannedCourse, term: Term): Found[] {
  const about = { course: planned.course, term: term.code }
  const isThis = (one: PlannedCourse) => one.course === planned.course && one.term === planned.term
  if (context.attempts.repeats.some(isThis)) return [{ code: 'alreadyThere', ...about }]
  const found = blockers(context, planned.course, term).flatMap((blocker): Found[] =>
    blocker.code === 'past' ? [] : [{ ...blocker, ...about }]
  )
  const why = outsideEverywhere(context.audits, planned.course, term.code)
  return why && !isStep(context, planned) ? [...found, { code: 'outside', ...about, why }] : found
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
