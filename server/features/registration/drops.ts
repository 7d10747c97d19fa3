/** Dropping courses: the decision as of now, the seats, what stays on the record, the log. The student's row is locked. */
import { asc, eq, inArray, isNull } from 'drizzle-orm'
import type { CourseCode, StudentId, TermCode } from '#core/ids'
import { decideDrop, type DropDecision } from '#core/registration'
import type { Instant } from '#core/time'
import { all, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { courseIds, termRow } from '#server/features/catalog/catalog'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { campusNow } from '#server/gateways/clock'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import type { ReceiptLine } from '#shared/registration/responses'
import { readFacts } from './facts'
import { lineOf } from './receiptLines'
import { giveBack, idsOf, seatsOf } from './heldSeats'
import { forgetDrops } from './prepared'

/**
 * Gives up the seats of courses, as far as the decision lets them go.
 *
 * @param how `givenUpAt`: the instant for which it was decided that they go for another seat; without it they are dropped
 *   now. `byOffice`: those in which an office placed the student go as well.
 */
export async function dropSeats(
  tx: Transaction,
  who: Who,
  { student, term }: { student: StudentId; term: TermCode },
  courses: readonly CourseCode[],
  catalogContext: CatalogContext,
  { givenUpAt, byOffice = false }: { givenUpAt?: Instant; byOffice?: boolean } = {}
): Promise<ReceiptLine[]> {
  const seats = await seatsOf(tx, student, term, courses)
  if (seats.length)
    await tx
      .select({ id: t.section.id })
      .from(t.section)
      .where(inArray(t.section.id, idsOf(seats)))
      .orderBy(asc(t.section.id))
      .for('update')
  const now = givenUpAt ?? (await campusNow(tx))
  const action = givenUpAt === undefined ? 'drop' : 'giveUp'
  const [studentRecord] = await readStudentRecords(tx, [student], 'self')
  const { facts } = await readFacts(tx, studentRecord!, catalogContext, term, now)
  const decisions = decideDrop(byOffice ? { ...facts, placing: { setAside: new Set() } } : facts, courses)
  const going = decisions.filter((one) => !one.refusals.length)
  const gone = seats.filter((seat) => going.some((one) => one.course === seat.course))
  await giveBack(tx, student, gone)
  if (going.length) await clearCourses(tx, student, term, going, gone)
  return Promise.all(
    decisions.map(async ({ course, refusals, mark }) => {
      const sections = seats.filter((seat) => seat.course === course).map((seat) => seat.code)
      if (refusals.length) return lineOf(course, 'refused', { action, sections, refusals })
      await logEvent(tx, {
        at: now,
        account: who.id,
        student,
        action: 'registration.dropped',
        before: { term, course, sections },
        after: { term, course, mark }
      })
      return lineOf(course, 'dropped', { action, sections, mark })
    })
  )
}

/** What was dropped is picked no more; on the record it leaves what the decision says. */
async function clearCourses(
  tx: Transaction,
  student: StudentId,
  code: TermCode,
  dropped: readonly DropDecision[],
  seats: readonly { course: string; credits: number }[]
): Promise<void> {
  const term = await termRow(tx, code)
  const ids = await courseIds(
    tx,
    dropped.map((one) => one.course)
  )
  const inCourses = [...ids.values()]
  const drafts = tx
    .select({ id: t.draftWeek.id })
    .from(t.draftWeek)
    .where(all(eq(t.draftWeek.studentId, student), eq(t.draftWeek.termId, term.id)))
  const sections = tx
    .select({ id: t.section.id })
    .from(t.section)
    .where(all(eq(t.section.termId, term.id), inArray(t.section.courseId, inCourses)))
  await tx
    .delete(t.pickedSection)
    .where(all(inArray(t.pickedSection.draftWeekId, drafts), inArray(t.pickedSection.sectionId, sections)))
  await forgetDrops(tx, student, term.id, ids)
  for (const { course, mark } of dropped) {
    const courseId = ids.get(course)!
    const row = all(
      eq(t.recordCourse.studentId, student),
      eq(t.recordCourse.termId, term.id),
      eq(t.recordCourse.courseId, courseId),
      isNull(t.recordCourse.grade)
    )
    if (mark === null) {
      await tx.delete(t.recordCourse).where(row)
      continue
    }
    const [known] = await tx.select({ id: t.recordCourse.id }).from(t.recordCourse).where(row)
    if (known) await tx.update(t.recordCourse).set({ grade: mark }).where(eq(t.recordCourse.id, known.id))
    else
      await tx.insert(t.recordCourse).values({
        studentId: student,
        courseId,
        termId: term.id,
        credits: seats.reduce((sum, seat) => (seat.course === course ? sum + seat.credits : sum), 0),
        grade: mark,
        origin: 'here'
      })
  }
}
