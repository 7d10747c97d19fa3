import { asc, eq, inArray } from 'drizzle-orm'
import type { CourseCode, StudentId, TermCode } from '#core/ids'
import { all, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'

/** The seats that the student holds of courses in a term. */
export function seatsOf(tx: Transaction, student: StudentId, term: TermCode, courses: readonly CourseCode[]) {
  return tx
    .select({ id: t.section.id, code: t.section.code, course: t.course.code, credits: t.section.credits })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(
      all(eq(t.registration.studentId, student), eq(t.term.code, term), inArray(t.course.code, [...courses]))
    )
    .orderBy(asc(t.section.id))
}
