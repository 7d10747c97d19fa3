/** Numbers in the talk of a student: what was said keeps its number for good. */
import type { StudentId } from '#core/ids'
import { all, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { eq, max } from 'drizzle-orm'

/** The next number for a matter or a suggestion; under the lock of the student. */
export async function nextNumber(tx: Transaction, student: StudentId): Promise<number> {
  const [thread] = await tx
    .select({ last: max(t.thread.number) })
    .from(t.thread)
    .where(all(eq(t.thread.studentId, student)))
  const [suggestion] = await tx
    .select({ last: max(t.suggestion.number) })
    .from(t.suggestion)
    .where(all(eq(t.suggestion.studentId, student)))
  const [sections] = await tx
    .select({ last: max(t.sectionSuggestion.number) })
    .from(t.sectionSuggestion)
    .where(all(eq(t.sectionSuggestion.studentId, student)))
  return Math.max(thread?.last ?? 0, suggestion?.last ?? 0, sections?.last ?? 0) + 1
}
