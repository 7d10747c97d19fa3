/**
 * The checks of a route: every planned course in its term, every term, the whole degree.
 *
 * All findings are collected, in order of term, then course. Each way out is tried before it is
 * offered: after it the finding is gone.
 */
import { phaseOf, runsIn, type Catalog, type Term } from '../catalog'
import type { Audit, PlannedCourse, Takings } from '../degree'
import type { Finding, RouteChange } from '../findings'
import type { CourseCode, TermCode } from '../ids'
import { evaluateRule, missingLeaves, ruleOf, type RuleLeaf } from '../requisites'
import type { IsoDate } from '../time'
import { asOfTerm, type StudentFacts } from './asOf'

export interface RouteContext {
  catalog: Catalog
  /** In order, past ones included. */
  terms: readonly Term[]
  today: IsoDate
  student: StudentFacts
  takings: Takings
  planned: readonly PlannedCourse[]
  /** Courses that have sections, by published term. */
  running: ReadonlyMap<string, ReadonlySet<string>>
  /** Most credits of a term. */
  loadMost: (term: Term) => number
  audits: readonly Audit[]
}

export type Obstacle =
  | { code: 'prerequisite' | 'corequisite'; missing: RuleLeaf[] }
  | { code: 'notOffered'; known: 'sections' | 'pattern' }
  | { code: 'past' }

const WAYS = 3

/** What speaks against a course in a term, leaving the course itself out of what is planned. */
export function obstacles(context: RouteContext, code: CourseCode, term: Term): Obstacle[] {
  const { catalog, terms, today, student, takings, running } = context
  if (phaseOf(term, today) !== 'future') return [{ code: 'past' }]
  const found: Obstacle[] = []
  const course = catalog.maybeCourse(code)
  if (!course) return found
  if (!runsIn(course, term, running)) {
    found.push({
      code: 'notOffered',
      known: term.published && running.has(term.code) ? 'sections' : 'pattern'
    })
  }
  const rule = ruleOf(course.prerequisite)
  if (rule) {
    const others = takings.counted.filter((taking) => taking.course !== code || taking.firmness === 'earned')
    const result = evaluateRule(rule, asOfTerm(term.code, terms, others, student, catalog))
    // Permission is given for a section; it does not speak against planning the course.
    const missing = missingLeaves(result).filter((leaf) => leaf.kind !== 'permission')
    const together = missing.filter((leaf) => leaf.kind === 'course' && leaf.sameTerm)
    const before = missing.filter((leaf) => !together.includes(leaf))
    if (before.length) found.push({ code: 'prerequisite', missing: before })
    if (together.length) found.push({ code: 'corequisite', missing: together })
  }
  return found
}

export function checkRoute(context: RouteContext): Finding[] {
  const { terms, today, takings, audits } = context
  const findings: Finding[] = []
  for (const term of terms.filter((t) => phaseOf(t, today) === 'future')) {
    const here = context.planned
      .filter((p) => p.term === term.code)
      .sort((a, b) => (a.course < b.course ? -1 : 1))
    for (const planned of here) {
      const about = { course: planned.course, term: term.code }
      if (takings.repeats.includes(planned)) {
        findings.push({ code: 'alreadyThere', ...about, ways: [{ kind: 'remove', planned }] })
        continue
      }
      for (const obstacle of obstacles(context, planned.course, term)) {
        if (obstacle.code === 'past') continue
        findings.push({ ...obstacle, ...about, ways: waysOut(context, planned, obstacle) })
      }
      const outside = outsideEverywhere(audits, planned.course, term.code)
      if (outside)
        findings.push({ code: 'outside', ...about, why: outside, ways: [{ kind: 'remove', planned }] })
    }
    const credits = termLoad(takings, term.code)
    const most = context.loadMost(term)
    if (credits > most) {
      findings.push({
        code: 'load',
        term: term.code,
        credits,
        most,
        ways: lighter(context, here, credits - most)
      })
    }
  }
  return findings
}

/** Credits of a term: held and planned courses, each once. */
export function termLoad(takings: Takings, term: TermCode): number {
  return takings.counted.reduce((sum, taking) => (taking.term === term ? sum + taking.credits : sum), 0)
}

/** Why a planned course counts in none of the student's programs; undefined when it counts in one. */
function outsideEverywhere(audits: readonly Audit[], course: CourseCode, term: TermCode) {
  const found = audits.map((a) => a.outside.find((o) => o.taking.course === course && o.taking.term === term))
  return found.length && found.every((o) => o) ? found[0]!.why : undefined
}

function waysOut(context: RouteContext, planned: PlannedCourse, obstacle: Obstacle): RouteChange[] {
  const { terms, today, catalog } = context
  const future = terms.filter((term) => phaseOf(term, today) === 'future')
  const at = future.findIndex((term) => term.code === planned.term)
  const ways: RouteChange[] = []
  const missing = 'missing' in obstacle ? obstacle.missing.filter((leaf) => leaf.kind === 'course') : []
  for (const { course, sameTerm } of missing) {
    const wanted = catalog.maybeCourse(course)
    if (!wanted) continue
    const there = context.planned.find((p) => p.course === course)
    const room = future.slice(0, sameTerm ? at + 1 : at).reverse()
    const term = room.find((t) => obstacles(context, course, t).length === 0)
    if (!term) continue
    const change: RouteChange = there
      ? { kind: 'move', course, from: there.term, to: term.code }
      : {
          kind: 'add',
          planned: { course, term: term.code, credits: wanted.credits, note: null, locked: false }
        }
    ways.push(change)
  }
  const later = [...future.slice(at + 1), ...future.slice(0, Math.max(0, at))]
  const better = later.find((term) => obstacles(context, planned.course, term).length === 0)
  if (better) ways.push({ kind: 'move', course: planned.course, from: planned.term, to: better.code })
  return settling(ways, context, planned, obstacle).concat({ kind: 'remove', planned }).slice(0, WAYS)
}

/** Keeps the ways after which this obstacle is gone from the course, wherever it then stands. */
function settling(
  ways: RouteChange[],
  context: RouteContext,
  planned: PlannedCourse,
  obstacle: Obstacle
): RouteChange[] {
  return ways.filter((way) => {
    const moved = way.kind === 'move' && way.course === planned.course ? way.to : planned.term
    const term = context.terms.find((t) => t.code === moved)!
    const after = {
      ...context,
      takings: { ...context.takings, counted: withChange(context.takings.counted, way) }
    }
    return !obstacles(after, planned.course, term).some((o) => o.code === obstacle.code)
  })
}

function withChange(counted: Takings['counted'], change: RouteChange): Takings['counted'] {
  if (change.kind === 'move') {
    return counted.map((t) =>
      t.course === change.course && t.term === change.from ? { ...t, term: change.to } : t
    )
  }
  if (change.kind === 'remove') {
    return counted.filter((t) => t.course !== change.planned.course || t.term !== change.planned.term)
  }
  const { course, credits, term } = change.planned
  return [
    ...counted,
    {
      key: `${course}@${term}`,
      course,
      credits,
      term,
      firmness: 'planned',
      grade: null,
      origin: 'here',
      detail: 'plain',
      placedByOffice: false
    }
  ]
}

/** Moves that take at least the excess out of a term, to a later one with room where the course may stand. */
function lighter(context: RouteContext, here: readonly PlannedCourse[], excess: number): RouteChange[] {
  const future = context.terms.filter((term) => phaseOf(term, context.today) === 'future')
  const ways: RouteChange[] = []
  for (const planned of here) {
    if (planned.credits < excess || planned.locked) continue
    const to = future.find(
      (term) =>
        term.code !== planned.term &&
        termLoad(context.takings, term.code) + planned.credits <= context.loadMost(term) &&
        obstacles(context, planned.course, term).length === 0
    )
    if (to) ways.push({ kind: 'move', course: planned.course, from: planned.term, to: to.code })
  }
  return ways.slice(0, WAYS)
}
