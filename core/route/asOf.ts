/** What a student will have when a term begins, from what is earned, under way, held and planned. */
import type { Catalog, Term } from '../catalog'
import type { Attempt, CourseAttempt } from '../degree'
import type { CourseCode, TermCode } from '../ids'
import { standingBy, type AsOf, type Standing } from '../requisites'

export interface StudentFacts {
  standing: Standing
  programs: readonly string[]
  tests: Readonly<Record<string, number>>
  /** What enters an average: grades given here, as the student's first program has it. */
  graded: readonly CourseAttempt[]
  /** Courses whose prerequisite is not asked of this student. */
  waived?: ReadonlySet<CourseCode>
}

/**
 * The student as of the first day of a term. Courses of an earlier term count as finished; without a
 * grade yet they are assumed to be passed. `terms` are in order.
 */
export function asOfTerm(
  term: TermCode,
  terms: readonly Term[],
  attempts: readonly Attempt[],
  student: StudentFacts,
  catalog: Catalog
): AsOf {
  const order = new Map<string, number>(terms.map((t, i) => [t.code, i]))
  const at = order.get(term) ?? terms.length
  const placeOf = (attempt: Attempt) => (attempt.term === null ? -1 : (order.get(attempt.term) ?? -1))
  const before = attempts.filter((t) => t.status === 'earned' || placeOf(t) < at)
  const same = attempts.filter((t) => t.term === term && t.status !== 'earned')
  const isIt = (attempt: Pick<Attempt, 'course'>, course: string) =>
    (catalog.sameAs(attempt.course) as string[]).includes(course)
  const isAmong = (attempt: Pick<Attempt, 'course'>, courses: readonly CourseCode[] | undefined) =>
    !courses || courses.some((course) => isIt(attempt, course))
  const creditsByThen = before.reduce((sum, attempt) => sum + (attempt.again ? 0 : attempt.credits), 0)
  return {
    finishedBefore: (course) => before.filter((t) => isIt(t, course)).map((t) => t.grade),
    inSameTerm: (course) => same.some((t) => isIt(t, course)),
    testScore: (test) => student.tests[test],
    average: (of) => catalog.scale.average(student.graded.filter((one) => isAmong(one, of))),
    gradeToCome: (of) =>
      before.some((one) => one.grade === null && !one.again && one.credits > 0 && isAmong(one, of)),
    standing: standingBy(creditsByThen, student.standing),
    creditsByThen,
    programs: student.programs,
    permitted: false,
    scale: catalog.scale
  }
}
