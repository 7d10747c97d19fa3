/** Seats that are held: read, given back, taken. */
import { asc, eq, inArray, sql } from 'drizzle-orm'
import type { CourseCode, StudentId, TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import { all, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { creditsHeld } from '#server/features/record/queries'

/** The seats that the student holds of courses in a term. */
export function seatsOf(tx: Transaction, student: StudentId, term: TermCode, courses: readonly CourseCode[]) {
  return tx
    .select({ id: t.section.id, code: t.section.code, course: t.course.code, credits: creditsHeld })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(
      all(eq(t.registration.studentId, student), eq(t.term.code, term), inArray(t.course.code, [...courses]))
    )
    .orderBy(asc(t.section.id))
}

export const idsOf = (rows: readonly { id: number }[]) => rows.map((row) => row.id)

/**
 * Gives seats back; the sections' rows are locked. A seat of a section for which somebody waits is kept for the line and
 * is never free in between.
 */
export async function giveBack(
  tx: Transaction,
  student: StudentId,
  sections: readonly { id: number }[]
): Promise<void> {
  if (!sections.length) return
  const ids = idsOf(sections)
  await tx
    .delete(t.registration)
    .where(all(eq(t.registration.studentId, student), inArray(t.registration.sectionId, ids)))
  await tx
    .update(t.section)
    .set({
      taken: sql`${t.section.taken} - 1`,
      offered: sql`${t.section.offered} + if(${t.section.waiting} > 0, 1, 0)`
    })
    .where(inArray(t.section.id, ids))
}

/** Takes seats; the sections' rows are locked. `credits` are those chosen of a range, `held` seats that an offer holds already. */
export async function takeSections(
  tx: Transaction,
  {
    student,
    by,
    now,
    placedByOffice = false
  }: { student: StudentId; by: number; now: Instant; placedByOffice?: boolean },
  sections: readonly { id: number; credits?: number | undefined }[],
  held: readonly { id: number }[] = []
): Promise<void> {
  if (!sections.length) return
  if (held.length)
    await tx
      .update(t.section)
      .set({ offered: sql`${t.section.offered} - 1` })
      .where(inArray(t.section.id, idsOf(held)))
  await tx
    .update(t.section)
    .set({ taken: sql`${t.section.taken} + 1` })
    .where(inArray(t.section.id, idsOf(sections)))
  const registeredAt = new Date(now)
  await tx.insert(t.registration).values(
    sections.map(({ id, credits = null }) => ({
      studentId: student,
      sectionId: id,
      registeredAt,
      byId: by,
      credits,
      placedByOffice
    }))
  )
}
