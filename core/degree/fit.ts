/** Whether a course as it was taken may count toward a need. */
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

/** Whether a course is earned with too low a grade for the need, and not taken again yet: to repeat it would help. */
export function raises(
  need: Need,
  course: Course,
  { counted }: Pick<Takings, 'counted'>,
  catalog: Catalog
): boolean {
  const there = counted.filter((one) => catalog.groupOf(one.course) === catalog.groupOf(course.code))
  return (
    there.length > 0 &&
    takes(need, course) &&
    there.every((one) => one.firmness === 'earned' && fit(need, one, catalog) === 'gradeTooLow')
  )
}
