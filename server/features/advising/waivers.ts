/** Waivers of prerequisites: asked for by the student, granted or declined by an advisor or the registrar. */
import { eq } from 'drizzle-orm'
import type { CourseCode, StudentId } from '#core/ids'
import { all, type Transaction } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { courseIds } from '#server/features/catalog/catalog'
import { logEvent } from '#server/db/log'
import { Refused } from '#server/http/problem'
import type { ActorContext } from '#server/features/route/route'
import { lockStudent } from '#server/features/record/lock'

type When = Omit<ActorContext, 'zone'>

/** Asks, or asks again after a refusal. */
export async function askWaiver(
  tx: Transaction,
  { who, student, now }: When,
  code: CourseCode,
  reason: string
): Promise<void> {
  const { courseId, row } = await lockWaiver(tx, student, code)
  const [course] = await tx.select().from(t.course).where(eq(t.course.id, courseId))
  if (!course!.prerequisite)
    throw new Refused(422, 'noPrerequisite', `${code} has no prerequisite that could be waived.`, [
      { field: 'course', message: 'has to be a course with a prerequisite' }
    ])
  if (row && row.state !== 'declined')
    throw new Refused(409, 'askedAlready', `A waiver for ${code} is ${row.state} already.`)
  const values = {
    state: 'asked' as const,
    reason,
    askedAt: new Date(now),
    answeredById: null,
    answeredAt: null
  }
  await tx
    .insert(t.waiver)
    .values({ studentId: student, courseId, ...values })
    .onDuplicateKeyUpdate({ set: values })
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'waiver.asked',
    after: { course: code, reason }
  })
}

/** Grants or declines; what was granted can be taken back by declining it, and the other way round. */
export async function answerWaiver(
  tx: Transaction,
  { who, student, now }: When,
  code: CourseCode,
  state: 'granted' | 'declined'
): Promise<void> {
  const { row } = await lockWaiver(tx, student, code)
  if (!row) throw new Refused(404, 'notAsked', `Nobody has asked for a waiver for ${code}.`)
  if (row.state === state)
    throw new Refused(409, 'answeredAlready', `The waiver for ${code} is ${state} already.`)
  await tx
    .update(t.waiver)
    .set({ state, answeredById: who.id, answeredAt: new Date(now) })
    .where(eq(t.waiver.id, row.id))
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'waiver.answered',
    before: { course: code, state: row.state },
    after: { course: code, state }
  })
}

async function lockWaiver(tx: Transaction, student: StudentId, code: CourseCode) {
  const courseId = (await courseIds(tx, [code])).get(code)!
  await lockStudent(tx, student)
  const [row] = await tx
    .select()
    .from(t.waiver)
    .where(all(eq(t.waiver.studentId, student), eq(t.waiver.courseId, courseId)))
  return { courseId, row }
}
