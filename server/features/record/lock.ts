import { asc, eq, inArray } from 'drizzle-orm'
import type { StudentId } from '#core/ids'
import type { Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'

/** Locks a student's row until the transaction ends: it puts requests about them that come at once in order. */
export async function lockStudent(tx: Transaction, student: StudentId): Promise<void> {
  await tx.select({ id: t.student.id }).from(t.student).where(eq(t.student.id, student)).for('update')
}

/** The same for several, in the order of all locks. */
export async function lockStudents(tx: Transaction, students: readonly StudentId[]): Promise<void> {
  await tx
    .select({ id: t.student.id })
    .from(t.student)
    .where(inArray(t.student.id, [...students]))
    .orderBy(asc(t.student.id))
    .for('update')
}
