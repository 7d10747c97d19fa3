/** Which courses a need takes, and whether one as it was taken may count toward it. */
import type { Catalog, Course } from '../catalog'
import { takes, type Need } from './program'
import type { Attempt, Attempts } from './attempt'

/** Whether an attempt may count toward a need, and if not, whether the grade is all that is wrong. */
export function fit(need: Need, attempt: Attempt, catalog: Catalog): 'fits' | 'gradeTooLow' | 'notAccepted' {
  const course = catalog.maybeCourse(attempt.course)
  if (!course || !takes(need, course, attempt)) return 'notAccepted'
  if (need.measure === 'credits' && attempt.credits === 0) return 'notAccepted'
  if (need.leastGrade && attempt.grade !== null && !catalog.scale.atLeast(attempt.grade, need.leastGrade))
    return 'gradeTooLow'
  return 'fits'
}

/** Whether what there is of a course is earned, and all of it with too low a grade for the need. */
export function isTooLow(need: Need, there: readonly Attempt[], catalog: Catalog): boolean {
  return (
    there.length > 0 &&
    there.every((one) => one.status === 'earned' && fit(need, one, catalog) === 'gradeTooLow')
  )
}

/** Whether a course can still be taken for the need, with what is there of it or of its equivalents. */
export function isLeft(need: Need, course: Course, there: readonly Attempt[], catalog: Catalog): boolean {
  return !there.length || course.repeatable || isTooLow(need, there, catalog)
}

/** Whether a course is earned with too low a grade for the need, and not taken again yet: to repeat it would help. */
export function raises(
  need: Need,
  course: Course,
  { counted }: Pick<Attempts, 'counted'>,
  catalog: Catalog
): boolean {
  const group = catalog.groupOf(course.code)
  return (
    takes(need, course) &&
    isTooLow(
      need,
      counted.filter((one) => catalog.groupOf(one.course) === group),
      catalog
    )
  )
}

const known = new WeakMap<Catalog, WeakMap<Need, readonly Course[]>>()

/** The courses of the catalog that a need takes; worked out once. */
export function takersOf(catalog: Catalog, need: Need): readonly Course[] {
  let ofCatalog = known.get(catalog)
  if (!ofCatalog) known.set(catalog, (ofCatalog = new WeakMap()))
  let found = ofCatalog.get(need)
  if (!found) {
    found = catalog.courses.filter((course) => takes(need, course))
    ofCatalog.set(need, found)
  }
  return found
}
