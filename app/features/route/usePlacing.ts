import type { Course } from '#core/catalog'
import type { PlannedCourse } from '#core/degree'
import type { SingleChange } from '#core/findings'
import type { TermCode } from '#core/ids'
import { plan } from '#core/route'

/** Puts courses on the route: one as one change, several as one change too. */
export function usePlacing() {
  const student = useStudent()
  const routeChanges = useRouteChanges()
  const college = useCollege()
  /** Terms to come in which something can be placed. */
  const terms = computed(() => college.termsAhead)
  /** A course that is planned elsewhere already moves, unless it may be repeated for credit. */
  function place(course: Course, term: TermCode): SingleChange {
    const there = student.reading?.context.planned.find((one) => one.course === course.code)
    return there && there.term !== term && !course.repeatable
      ? { kind: 'move', course: course.code, from: there.term, to: term }
      : { kind: 'add', planned: plan(course, term) }
  }

  /** `instead` leaves the route in the same change. */
  async function put(courses: readonly Course[], term: string, instead?: PlannedCourse): Promise<boolean> {
    const added = courses.map((course): SingleChange => place(course, term as TermCode))
    if (!added.length) return false
    const all: SingleChange[] = instead ? [{ kind: 'remove', planned: instead }, ...added] : added
    return routeChanges.changeRoute(all.length === 1 ? all[0]! : { kind: 'several', changes: all })
  }
  return { terms, put }
}
