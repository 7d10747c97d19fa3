import type { Catalog, Course } from '../catalog'
import { allAttempts, isTooLow, type Attempt, type Attempts, type NeedResult } from '../degree'
import type { CourseCode } from '../ids'

/** What is on the record or the route, a course and its equivalents being one. */
export class CoursesThere {
  private readonly groups = new Set<string>()
  private readonly attempts: readonly Attempt[]

  constructor(
    private readonly catalog: Catalog,
    attempts: Attempts
  ) {
    this.attempts = allAttempts(attempts)
  }

  add(course: CourseCode): void {
    this.groups.add(this.catalog.groupOf(course))
  }

  has(course: CourseCode): boolean {
    return this.groups.has(this.catalog.groupOf(course))
  }

  /** Whether the course is there, or one that excludes it. */
  isTaken(course: Course): boolean {
    return this.has(course.code) || this.isExcluded(course)
  }

  private isExcluded(course: Course): boolean {
    return [...this.catalog.exclusiveWith(course.code)].some((other) => this.has(other))
  }

  /** Whether the course is earned with too low a grade, and could be repeated: for a need, or for one that it is to have. */
  isTooLow(course: Course, asked?: NeedResult['need'] | string): boolean {
    const { catalog } = this
    const group = catalog.groupOf(course.code)
    const there = this.attempts.filter((one) => catalog.groupOf(one.course) === group)
    if (!there.length || course.repeatable || this.isExcluded(course)) return false
    if (typeof asked === 'object') return isTooLow(asked, there, catalog)
    const isLow = (grade: string | null) =>
      grade !== null && (asked === undefined || !catalog.scale.atLeast(grade, asked))
    return there.every((one) => one.status === 'earned' && isLow(one.grade))
  }
}
