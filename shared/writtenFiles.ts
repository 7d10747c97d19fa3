/** Files as they are written: apart from reading them, which needs every schema. */
import type { PlannedCourse } from '#core/degree'
import type { StudentRecord } from '#shared/record/responses'
import type { CatalogView } from '#shared/catalog/responses'
import type { catalogFile, listsFile, programFile, recordFile } from './fileShapes'
import type { WrittenProgram } from './degree/programText'
import { MODES } from '#core/week'
import type { z } from 'zod'

export function routeFileOf(name: string, note: string | null, planned: readonly PlannedCourse[]) {
  return { format: 'ridgeway route 1', name, note, planned } as const
}

/** A student's record as the file that a trial reads. */
export function recordFileOf(
  student: Pick<StudentRecord, 'student' | 'record' | 'route' | 'tests' | 'milestones' | 'exceptions'>
): z.infer<typeof recordFile> {
  return {
    format: 'ridgeway record 1',
    name: student.student.name,
    standing: student.student.standing,
    record: student.record.map(({ campus = null, mode = null, categories = null, ...entry }) => ({
      ...entry,
      campus,
      mode: MODES.find((one) => one === mode) ?? null,
      categories: categories && [...categories]
    })),
    planned: student.route.courses.map(({ course: code, term: held, credits: worth }) => ({
      course: code,
      term: held,
      credits: worth
    })),
    tests: student.tests,
    milestones: student.milestones,
    exceptions: student.exceptions.map(({ kind, program, need: of, amount, course: code, reason }) =>
      kind === 'substitution' && code
        ? { kind, program, need: of, course: code, reason }
        : { kind: 'waiver', program, need: of, ...(amount && { amount }), reason }
    )
  }
}

/** The catalog as the file that the command line reads; the lists in a file of their own. */
export const catalogFileOf = ({
  courses,
  terms,
  institution
}: Pick<CatalogView, 'courses' | 'terms' | 'institution'>): z.infer<typeof catalogFile> => ({
  format: 'ridgeway catalog 1',
  courses: courses.map((one) => ({ ...one })),
  terms: terms.map(({ code, name, season, year, start, end }) => ({ code, name, season, year, start, end })),
  ...(institution.grades && { grades: institution.grades })
})

export const listsFileOf = ({ lists }: Pick<CatalogView, 'lists'>): z.infer<typeof listsFile> => ({
  format: 'ridgeway lists 1',
  lists
})

export const programFileOf = (program: WrittenProgram): z.infer<typeof programFile> => ({
  format: 'ridgeway program 1',
  program
})
