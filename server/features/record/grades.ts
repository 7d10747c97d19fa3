/** Grades of a term: which are due, and posting them to the records. */
import { eq, inArray } from 'drizzle-orm'
import { phaseOf } from '#core/catalog'
import { termCode, type TermCode } from '#core/ids'
import { standingBy } from '#core/requisites'
import type { Instant } from '#core/time'
import type { GradesDue } from '#shared/record/responses'
import type { Who } from '#shared/accounts/responses'
import { momentOf } from '#shared/catalog/context'
import { groupBy } from '#server/db/groupBy'
import { all, type Reader, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { earnedCredits } from './earned'
import { creditsHeld } from './queries'
import { gradeFor } from '#server/gateways/gradebook'
import { datesOfTerm, termRow } from '#server/features/catalog/catalog'
import { logEvent } from '#server/db/log'
import { Refused } from '#server/http/problem'

interface Due {
  student: number
  course: number
  term: number
  section: string
  credits: number
  campus: number
  mode: (typeof t.section.$inferSelect)['mode']
  categories: string[] | null
  /** The row of the record that waits for the grade; null where there is none yet. */
  record: number | null
}

/** Seats of sections without a parent that have no grade on the record of their student. */
async function dueIn(db: Reader, terms: readonly number[]): Promise<Due[]> {
  if (!terms.length) return []
  const rows = await db
    .select({
      student: t.registration.studentId,
      course: t.section.courseId,
      term: t.section.termId,
      section: t.section.code,
      parent: t.section.parentId,
      credits: creditsHeld,
      campus: t.section.campusId,
      mode: t.section.mode,
      categories: t.section.categories,
      record: t.recordCourse.id,
      grade: t.recordCourse.grade
    })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .leftJoin(
      t.recordCourse,
      all(
        eq(t.recordCourse.studentId, t.registration.studentId),
        eq(t.recordCourse.courseId, t.section.courseId),
        eq(t.recordCourse.termId, t.section.termId)
      )
    )
    .where(inArray(t.section.termId, [...terms]))
    .orderBy(t.registration.studentId, t.section.code)
  return rows.filter((row) => row.parent === null && row.grade === null)
}

/** Terms that are over, with the grades that are still due in each; those without any are left out. */
export async function readGradesDue(db: Reader, at: { now: Instant; zone: string }): Promise<GradesDue[]> {
  const { today } = momentOf(at.now, at.zone)
  const terms = (await db.select().from(t.term)).filter(
    (term) => phaseOf(datesOfTerm(term), today) === 'past'
  )
  const due = groupBy(
    await dueIn(
      db,
      terms.map((term) => term.id)
    ),
    (row) => row.term
  )
  return terms.flatMap(({ id, code }) => {
    const rows = due.get(id)
    if (!rows) return []
    return [{ term: termCode(code), grades: rows.length, students: new Set(rows.map((r) => r.student)).size }]
  })
}

/**
 * Posts the grades that are due in a term that is over, as the gradebook gives them. Class standings follow the
 * credits earned. @returns how many were posted.
 */
export async function postGrades(
  tx: Transaction,
  who: Who,
  { term: code, seed }: { term: TermCode; seed: number },
  at: { now: Instant; zone: string }
): Promise<{ posted: number; students: number }> {
  const term = await termRow(tx, code)
  if (phaseOf(datesOfTerm(term), momentOf(at.now, at.zone).today) !== 'past')
    throw new Refused(422, 'termNotOver', `${term.name} is not over; grades are posted after its last day.`, [
      { field: 'term', message: 'has to be a term that is over' }
    ])
  const byStudent = groupBy(await dueIn(tx, [term.id]), (row) => row.student)
  let posted = 0
  for (const [student, rows] of [...byStudent].sort(([a], [b]) => a - b)) {
    const grades = rows.map((row) => ({ ...row, given: gradeFor(seed, student, row.section) }))
    for (const { record, course, credits, campus, mode, categories, given } of grades) {
      if (record === null)
        await tx.insert(t.recordCourse).values({
          studentId: student,
          courseId: course,
          termId: term.id,
          credits,
          grade: given,
          origin: 'here',
          campusId: campus,
          mode,
          categories
        })
      else await tx.update(t.recordCourse).set({ grade: given }).where(eq(t.recordCourse.id, record))
    }
    posted += grades.length
    await raiseStanding(tx, student)
    await logEvent(tx, {
      at: at.now,
      account: who.id,
      student,
      action: 'grades.posted',
      after: { term: code, grades: grades.map(({ section, given }) => ({ section, grade: given })) }
    })
  }
  return { posted, students: byStudent.size }
}

/** The class standing that the credits earned give, never below the one on record. */
export async function raiseStanding(tx: Transaction, student: number): Promise<void> {
  const earned = (await earnedCredits(tx, [student])).get(student) ?? 0
  const [known] = await tx
    .select({ standing: t.student.standing })
    .from(t.student)
    .where(eq(t.student.id, student))
  const standing = standingBy(earned, known!.standing)
  if (standing !== known!.standing)
    await tx.update(t.student).set({ standing }).where(eq(t.student.id, student))
}
