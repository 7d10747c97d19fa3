/** The courses that could meet a need, for choosing one. */
import { runsIn, type Catalog, type Course, type Term } from '../catalog'
import type { Audit, NeedResult } from './audit'
import { takes } from './program'
import type { Takings } from './taking'

export interface Candidate {
  course: Course
  /** Runs in the term that is asked about. */
  runs: boolean
  /** Other needs, of this program or another, that it could meet as well. */
  alsoMeets: string[]
}

/**
 * Courses that fit a need and are not done, under way or planned; those that run in `term` first,
 * then those that serve more needs, then by code.
 */
export function candidatesFor(
  result: NeedResult,
  audits: readonly Audit[],
  takings: Takings,
  catalog: Catalog,
  term: Term,
  running: ReadonlyMap<string, ReadonlySet<string>>
): Candidate[] {
  const there = new Set<string>(takings.counted.flatMap((taking) => catalog.sameAs(taking.course)))
  const open = audits
    .flatMap((a) => a.areas.flatMap((area) => area.needs))
    .filter((n) => n.state === 'needed' && n !== result)
  return catalog.courses
    .filter((course) => takes(result.need, course) && (!there.has(course.code) || course.repeatable))
    .map((course) => ({
      course,
      runs: runsIn(course, term, running),
      alsoMeets: open.filter((other) => takes(other.need, course)).map((other) => other.need.title)
    }))
    .sort(
      (a, b) =>
        Number(b.runs) - Number(a.runs) ||
        b.alsoMeets.length - a.alsoMeets.length ||
        (a.course.code < b.course.code ? -1 : 1)
    )
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
