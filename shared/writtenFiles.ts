/** Files as they are written: apart from reading them, which needs every schema. */
import type { TermPhase } from '#core/catalog'
import type { HeldSeat, PlannedCourse } from '#core/degree'
import type { CourseCode, TermCode } from '#core/ids'
import type { StudentRecord } from '#shared/record/responses'
import type { CatalogView } from '#shared/catalog/responses'
import type { catalogFile, listsFile, programFile } from './fileShapes'
import type { recordFile } from './record/recordShape'
import type { WrittenProgram } from './degree/programText'
import { MODES } from '#core/week'
import type { z } from 'zod'

export function routeFileOf(name: string, note: string | null, planned: readonly PlannedCourse[]) {
  return { format: 'ridgeway route 1', name, note, planned } as const
}

/** What a seat has in the section it is in, where that is known. */
const heldAs = ({
  campus = null,
  mode = null,
  categories = null
}: Pick<HeldSeat, 'campus' | 'mode' | 'categories'>) => ({
  campus,
  mode: MODES.find((one) => one === mode) ?? null,
  categories: categories && [...categories]
})

/** A student's record as the file that a trial reads; a seat of a term that has begun is a course under way. */
export function recordFileOf(
  student: Pick<
    StudentRecord,
    'student' | 'record' | 'held' | 'route' | 'tests' | 'milestones' | 'exceptions'
  >,
  phaseIn: (course: CourseCode, term: TermCode) => TermPhase
): z.infer<typeof recordFile> {
  const seats = student.held.filter(
    ({ course, term }) => !student.record.some((one) => one.course === course && one.term === term)
  )
  const hasBegun = ({ course, term }: HeldSeat) => phaseIn(course, term) !== 'future'
  return {
    format: 'ridgeway record 1',
    name: student.student.name,
    standing: student.student.standing,
    record: [
      ...student.record.map((entry) => ({ ...entry, ...heldAs(entry) })),
      ...seats.filter(hasBegun).map(({ course, term, credits, ...seat }) => ({
        course,
        term,
        credits,
        grade: null,
        ...heldAs(seat)
      }))
    ],
    registered: seats
      .filter((seat) => !hasBegun(seat))
      .map(({ course, term, credits, section, ...seat }) => ({
        course,
        term,
        credits,
        section,
        ...heldAs(seat)
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
