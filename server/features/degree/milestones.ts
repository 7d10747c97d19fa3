/** Conditions of a program that no course meets: noted as reached by those who saw it, and taken back. */
import { eq } from 'drizzle-orm'
import { all, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { lockStudent } from '#server/features/record/lock'
import { programRows } from '#server/features/record/queries'
import { programSpec } from '#server/features/catalog/programs'
import type { ActorContext } from '#server/features/route/route'
import { Refused } from '#server/http/problem'
import { campusDate } from '#shared/when'

/** @throws Refused where no program of the student asks for it, or where it stands as asked already */
export async function noteMilestone(
  tx: Transaction,
  { who, student, now, zone }: ActorContext,
  condition: string,
  reached: boolean
): Promise<void> {
  await lockStudent(tx, student)
  const asked = (await programRows(tx, [student]))
    .flatMap((row) => programSpec(row).conditions ?? [])
    .find((one) => one.id === condition && one.asks === 'milestone')
  if (!asked)
    throw new Refused(422, 'noMilestone', 'No program on the record asks for that.', [
      { field: 'condition', message: 'has to be a milestone that a program of the student asks for' }
    ])
  const own = all(eq(t.milestone.studentId, student), eq(t.milestone.condition, condition))
  const [before] = await tx.select({ on: t.milestone.reachedOn }).from(t.milestone).where(own)
  if (Boolean(before) === reached)
    throw new Refused(
      409,
      'noChange',
      reached ? 'It is noted as reached already.' : 'It is not noted as reached.'
    )
  if (reached)
    await tx.insert(t.milestone).values({ studentId: student, condition, reachedOn: campusDate(now, zone) })
  else await tx.delete(t.milestone).where(own)
  const after = { condition, title: asked.title, by: who.name }
  const action = reached ? 'milestone.reached' : 'milestone.takenBack'
  await logEvent(tx, { at: now, account: who.id, student, action, after })
}
