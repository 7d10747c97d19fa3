/** What is wrong with a catalog, however it was written down: rules, courses that are not there, circles. */
import { factorsOf, graphOf } from '../chain'
import type { Catalog } from '../catalog'
import type { CourseCode } from '../ids'
import { coursesIn, parseRule } from '../requisites'
import { RuleError } from '../rules'
import type { Fault } from './fault'

const known = new WeakMap<Catalog, ReadonlySet<string>>()

/** What is wrong with a catalog and was not with an earlier one: what a change of it brought. */
export function faultsBrought(before: Catalog, after: Catalog): Fault[] {
  let old = known.get(before)
  if (!old) known.set(before, (old = new Set(checkCatalog(before).map((one) => JSON.stringify(one)))))
  const was = old
  return checkCatalog(after).filter((one) => !was.has(JSON.stringify(one)))
}

/** All faults, in order of the courses; the circle, if there is one, at last. */
export function checkCatalog(catalog: Catalog): Fault[] {
  const faults: Fault[] = []
  const seen = new Set<CourseCode>()
  let readable = true
  for (const course of catalog.courses) {
    const path = `courses/${course.code}`
    if (seen.has(course.code)) faults.push({ code: 'courseTwice', path, course: course.code })
    seen.add(course.code)
    if (course.creditsMost < course.credits)
      faults.push({ code: 'creditRange', path, least: course.credits, most: course.creditsMost })
    try {
      for (const named of coursesIn(parseRule(course.prerequisite, catalog.scale)))
        if (!catalog.maybeCourse(named))
          faults.push({ code: 'unknownCourse', path, course: named, rule: course.prerequisite })
    } catch (error) {
      if (!(error instanceof RuleError)) throw error
      readable = false
      faults.push({ code: 'rule', path, problem: error.problem, rule: error.rule, at: error.at })
    }
    for (const other of [...course.equivalents, ...course.exclusive])
      if (!catalog.maybeCourse(other)) faults.push({ code: 'unknownCourse', path, course: other, rule: '' })
  }
  if (!readable) return faults
  try {
    factorsOf(
      graphOf(
        catalog.courses.map((course) => course.code),
        catalog
      )
    )
  } catch (error) {
    if (!(error instanceof RangeError)) throw error
    faults.push({ code: 'circle', path: 'courses', problem: error.message })
  }
  return faults
}
