/**
 * How far a planned course could move, the others staying: from the first to the last term in which it
 * may stand, what it needs is before it, what waits for it is still after it, and the route finishes no
 * later. The method of critical-path planning (Kelley and Walker 1959), for one activity at a time.
 */
import type { Term } from '../catalog'
import type { PlannedCourse } from '../degree'
import type { CourseCode, TermCode } from '../ids'
import { coursesIn, ruleOf } from '../requisites'
import { contextAfter, blockers, termsToPlan, type RouteContext } from './context'

export interface Slack {
  course: CourseCode
  term: Term
  /** Courses of the record and the route that its rule names. */
  needs: CourseCode[]
  /** Planned courses whose rule names it. */
  waits: CourseCode[]
  /** Undefined where it may not even stand where it does. */
  earliest: Term | undefined
  latest: Term | undefined
}

/**
 * Of every planned course, in the order of the route.
 *
 * @param inTerms of the courses of these terms alone, where it is given
 */
export function slackOf(context: RouteContext, inTerms?: ReadonlySet<TermCode>): Slack[] {
  const future = termsToPlan(context)
  const last = Math.max(...context.planned.map((one) => future.findIndex((term) => term.code === one.term)))
  return context.planned.flatMap((planned) => {
    const term = future.find((one) => one.code === planned.term)
    if (!term || (inTerms && !inTerms.has(term.code))) return []
    const waits = context.planned.filter((one) => names(context, one.course, planned.course))
    const free = future.slice(0, last + 1).filter((to) => mayStand(context, planned, to, waits))
    return [
      {
        course: planned.course,
        term,
        needs: neededBy(context, planned.course),
        waits: waits.map((one) => one.course),
        earliest: free[0],
        latest: free.at(-1)
      }
    ]
  })
}

function neededBy({ catalog, attempts }: RouteContext, code: CourseCode): CourseCode[] {
  const named = coursesIn(ruleOf(catalog.maybeCourse(code)?.prerequisite ?? ''))
  const groups = new Set(named.map((one) => catalog.groupOf(one)))
  return attempts.counted.flatMap((one) => (groups.has(catalog.groupOf(one.course)) ? [one.course] : []))
}

function names({ catalog }: RouteContext, code: CourseCode, other: CourseCode): boolean {
  const named = coursesIn(ruleOf(catalog.maybeCourse(code)?.prerequisite ?? ''))
  return named.some((one) => catalog.groupOf(one) === catalog.groupOf(other))
}

function mayStand(
  context: RouteContext,
  planned: PlannedCourse,
  to: Term,
  waits: readonly PlannedCourse[]
): boolean {
  if (blockers(context, planned.course, to).length) return false
  if (to.code === planned.term) return true
  const after = contextAfter(context, {
    kind: 'move',
    course: planned.course,
    from: planned.term,
    to: to.code
  })
  if (!after) return false
  return waits.every((one) => {
    const term = context.terms.find((t) => t.code === one.term)!
    return blockers(after, one.course, term).length <= blockers(context, one.course, term).length
  })
}
