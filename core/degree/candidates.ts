/** The courses that could meet a need, for choosing one. */
import { runsIn, type Catalog, type Course, type Term } from '../catalog'
import type { Audit, NeedResult } from './audit'
import { takes } from './program'
import type { Takings } from './taking'

export interface Candidate {
  course: Course
  /** Runs in the term that is asked about. */
  runs: boolean
  /** Its prerequisites will be met when that term begins. */
  ready: boolean
  /** Other open needs, of this program or another, that it could meet as well. */
  alsoMeets: string[]
}

export interface Candidates {
  list: Candidate[]
  /** Courses that fit but are done, under way or planned, or count as one that is. */
  leftOut: number
}

export interface CandidateQuestion {
  audits: readonly Audit[]
  takings: Takings
  catalog: Catalog
  /** The term that is asked about. */
  term: Term
  running: ReadonlyMap<string, ReadonlySet<string>>
  /** Whether a course's prerequisites will be met when the term begins. */
  ready: (course: Course) => boolean
  /** How much waits for a course; what more waits for comes first among equals. */
  weight?: ((course: Course) => number) | undefined
}

/**
 * Courses that fit a need and are not there already; those that run in the term first, then those whose
 * prerequisites are met, then those that serve more needs, then those more waits for, then by code.
 */
export function candidatesFor(result: NeedResult, question: CandidateQuestion): Candidates {
  const { audits, takings, catalog, term, running, ready, weight = () => 0 } = question
  const there = new Set<string>(
    takings.counted.flatMap(({ course }) => [...catalog.sameAs(course), ...catalog.exclusiveWith(course)])
  )
  const open = audits
    .flatMap((a) => a.areas.flatMap((area) => area.needs))
    .filter((n) => n.state === 'needed' && n !== result)
  const fitting = catalog.courses.filter((course) => takes(result.need, course))
  const list = fitting
    .filter((course) => !there.has(course.code) || course.repeatable)
    .map((course) => ({
      course,
      runs: runsIn(course, term, running),
      ready: ready(course),
      alsoMeets: open.filter((other) => takes(other.need, course)).map((other) => other.need.title)
    }))
  list.sort(
    (a, b) =>
      Number(b.runs) - Number(a.runs) ||
      Number(b.ready) - Number(a.ready) ||
      b.alsoMeets.length - a.alsoMeets.length ||
      weight(b.course) - weight(a.course) ||
      (a.course.code < b.course.code ? -1 : 1)
  )
  return { list, leftOut: fitting.length - list.length }
}

/** The needs of the audits that a course could meet, those still open first. */
export function needsServedBy(course: Course, audits: readonly Audit[]): NeedResult[] {
  return audits
    .flatMap((audit) => audit.areas.flatMap((area) => area.needs))
    .filter((result) => takes(result.need, course))
    .sort(
      (a, b) => Number(b.state === 'needed') - Number(a.state === 'needed') || a.need.order - b.need.order
    )
}
