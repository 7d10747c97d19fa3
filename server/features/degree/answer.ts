/** The student confirms the program on record, or says that it is wrong and which is right. */
import { eq } from 'drizzle-orm'
import type { StudentId } from '#core/ids'
import type { Instant } from '#core/time'
import type { Who } from '#shared/accounts/responses'
import { all, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { logEvent } from '#server/db/log'
import { Refused } from '#server/http/problem'
import { reportProgram, withdrawReport } from './programChange'

export type ProgramAnswer = { program: string } & (
  | { answer: 'confirmed' }
  | { answer: 'wrong'; instead: string }
)

export async function answerProgram(
  tx: Transaction,
  who: Who,
  student: StudentId,
  body: ProgramAnswer,
  now: Instant
): Promise<void> {
  const [row] = await tx
    .select({ versionId: t.studentProgram.programVersionId, confirmed: t.studentProgram.confirmed })
    .from(t.studentProgram)
    .innerJoin(t.programVersion, eq(t.programVersion.id, t.studentProgram.programVersionId))
    .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    .where(all(eq(t.studentProgram.studentId, student), eq(t.program.code, body.program)))
  if (!row) {
    throw new Refused(422, 'noProgram', `${body.program} is not a program on this record.`, [
      { field: 'program', message: 'has to be a program on the record' }
    ])
  }
  const saidInstead = body.answer === 'wrong' ? body.instead : null
  await tx
    .update(t.studentProgram)
    .set({ confirmed: body.answer, saidInstead, saidAt: new Date(now) })
    .where(all(eq(t.studentProgram.studentId, student), eq(t.studentProgram.programVersionId, row.versionId)))
  if (body.answer === 'wrong') await reportProgram(tx, { who, student, now }, row.versionId, body.instead)
  else await withdrawReport(tx, student, row.versionId)
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'program.answered',
    before: { confirmed: row.confirmed },
    after: body
  })
}
