import type { CourseCode } from '#core/ids'
import type { StudentFacts } from '#core/route'
import type { StudentRecord } from './responses'

/** What the rules of courses ask of the student beside courses. */
export const studentFacts = (
  student: Pick<StudentRecord, 'student' | 'programs' | 'tests' | 'requests'>,
  graded: StudentFacts['graded']
): StudentFacts => ({
  standing: student.student.standing,
  programs: student.programs.map((p) => p.spec.code),
  tests: student.tests,
  graded,
  waived: waivedOf(student)
})

/** Courses whose prerequisite is not asked of the student. */
export function waivedOf({ requests }: Pick<StudentRecord, 'requests'>): ReadonlySet<CourseCode> {
  const given = requests.filter((one) => one.kind === 'waiver' && one.state === 'given')
  return new Set(given.flatMap((one) => one.course ?? []))
}
