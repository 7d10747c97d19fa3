/** The courses that could meet a need, for choosing one. */
import { runsIn, type Catalog, type Course, type Term } from '../catalog'
import type { Audit } from './audit'
import type { NeedResult } from './needResult'
import type { Rule } from '../requisites'
import { raises, takersOf } from './fit'
import { servingOf } from './serving'
import type { Attempts } from './attempt'

export interface Candidate {
  course: Course
  /** Runs in the term that is asked about. */
  runs: boolean
  /** What it asks for before it and will not be there when that term begins; undefined where all is. */
  missing: Rule | undefined
  /** Other open needs that it would meet at once, where the programs share it. */
  alsoMeets: string[]
  /** Other open needs that it could meet instead. */
  orMeets: string[]
}

export interface Candidates {
  list: Candidate[]
  /** Courses that fit but are done, under way or planned, or count as one that is. */
  leftOut: number
}

export interface CandidateQuestion {
  audits: readonly Audit[]
  attempts: Attempts
  catalog: Catalog
  /** The term that is asked about. */
  term: Term
  running: ReadonlyMap<string, ReadonlySet<string>>
  /** What of a course's prerequisites will be missing when the term begins. */
  missing: (course: Course) => Rule | undefined
  /** How much waits for a course; what more waits for comes first among equals. */
  weight?: ((course: Course) => number) | undefined
}

/**
 * Courses that fit a need and are not there already, or only with too low a grade; those that run in the term first, then those whose
 * prerequisites are met, then those that serve more needs, then those more waits for, then by code.
 */
export function candidatesFor(result: NeedResult, question: CandidateQuestion): Candidates {
  const { attempts, catalog, term, running, missing, weight = () => 0 } = question
  const there = new Set<string>(
    attempts.counted.flatMap(({ course }) => [...catalog.sameAs(course), ...catalog.exclusiveWith(course)])
  )
  const fitting = takersOf(catalog, result.need)
  const list = fitting
    .filter(
      (course) =>
        !there.has(course.code) || course.repeatable || raises(result.need, course, attempts, catalog)
    )
    .map((course): Candidate => {
      const serving = servingOf(course, question)
      const places = serving.kind === 'counts' ? serving.places : []
      const titles = (needs: readonly NeedResult[]) =>
        needs.filter((one) => one !== result).map((one) => one.need.title)
      const own = places.filter((place) => place.includes(result))
      const others = places.filter((place) => !place.includes(result))
      // Of a need that is full already the course would go to the others instead.
      const [also, instead] = own.length ? [others, own] : [[], others]
      return {
        course,
        runs: runsIn(course, term, running),
        missing: missing(course),
        alsoMeets: also.flatMap(titles),
        orMeets: instead.flatMap(titles)
      }
    })
  list.sort(
    (a, b) =>
      Number(b.runs) - Number(a.runs) ||
      Number(!b.missing) - Number(!a.missing) ||
      b.alsoMeets.length - a.alsoMeets.length ||
      weight(b.course) - weight(a.course) ||
      (a.course.code < b.course.code ? -1 : 1)
  )
  return { list, leftOut: fitting.length - list.length }
}
