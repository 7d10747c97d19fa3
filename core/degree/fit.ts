/** Which courses a need takes, and whether one as it was taken may count toward it. */
import type { Catalog, Course } from '../catalog'
import { takes, type Need } from './program'
import type { Taking, Takings } from './taking'

/** Whether a taking may count toward a need, and if not, whether the grade is all that is wrong. */
export function fit(need: Need, taking: Taking, catalog: Catalog): 'fits' | 'gradeTooLow' | 'notAccepted' {
  const course = catalog.maybeCourse(taking.course)
  if (!course || !takes(need, course, taking)) return 'notAccepted'
  if (need.leastGrade && taking.grade !== null && !catalog.scale.atLeast(taking.grade, need.leastGrade))
    return 'gradeTooLow'
  return 'fits'
}

/** Whether what there is of a course is earned, and all of it with too low a grade for the need. */
export function isTooLow(need: Need, there: readonly Taking[], catalog: Catalog): boolean {
  return (
    there.length > 0 &&
    there.every((one) => one.firmness === 'earned' && fit(need, one, catalog) === 'gradeTooLow')
  )
}

/** Whether a course is earned with too low a grade for the need, and not taken again yet: to repeat it would help. */
export function raises(
  need: Need,
  course: Course,
  { counted }: Pick<Takings, 'counted'>,
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
