import { courseCode } from '#core/ids'
import { all, type Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { asc, eq } from 'drizzle-orm'

/** The lines of a receipt that still wait for their outcome, in order. */
export async function waitingLines(db: Reader, receipt: number) {
  const rows = await db
    .select({
      id: t.receiptLine.id,
      action: t.receiptLine.action,
      course: t.course.code,
      sections: t.receiptLine.sections
    })
    .from(t.receiptLine)
    .innerJoin(t.course, eq(t.course.id, t.receiptLine.courseId))
    .where(all(eq(t.receiptLine.receiptId, receipt), eq(t.receiptLine.outcome, 'waiting')))
    .orderBy(asc(t.receiptLine.ordinal))
  return rows.map((row) => ({ ...row, course: courseCode(row.course) }))
}
