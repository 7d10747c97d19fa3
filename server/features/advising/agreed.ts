/** What was agreed in a talk: what, who, by when. */
import type { StudentId } from '#core/ids'
import { all, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { lockStudent } from '#server/features/record/lock'
import type { ActorContext } from '#server/features/route/route'
import { Refused } from '#server/http/problem'
import type { AgreedSaid } from '#shared/advising/requests'
import type { AgreedLine } from '#shared/advising/talk'
import { alias } from 'drizzle-orm/mysql-core'
import { asc, eq, inArray, isNull } from 'drizzle-orm'

type Doing = Omit<ActorContext, 'zone'>

/** Lines of students by student, those to be done first by their day. */
export async function readAgreed(
  db: Reader,
  students: readonly number[]
): Promise<Map<number, AgreedLine[]>> {
  const done = alias(t.account, 'done_by')
  const rows = await db
    .select({ line: t.agreed, madeBy: t.account.name, doneBy: done.name })
    .from(t.agreed)
    .innerJoin(t.account, eq(t.account.id, t.agreed.madeById))
    .leftJoin(done, eq(done.id, t.agreed.doneById))
    .where(all(inArray(t.agreed.studentId, [...students]), isNull(t.agreed.droppedAt)))
    .orderBy(asc(t.agreed.id))
  const found = new Map<number, AgreedLine[]>()
  for (const { line, madeBy, doneBy } of rows) {
    const own = found.get(line.studentId) ?? []
    own.push({
      id: line.id,
      what: line.what,
      who: line.who,
      due: line.dueOn,
      madeBy,
      madeAt: line.madeAt.getTime(),
      done: doneBy && line.doneAt ? { by: doneBy, at: line.doneAt.getTime() } : null
    })
    found.set(line.studentId, own)
  }
  const lastDay = ({ done, due }: AgreedLine) => `${done ? 1 : 0} ${due ?? '9999'}`
  for (const lines of found.values()) lines.sort((a, b) => (lastDay(a) < lastDay(b) ? -1 : 1))
  return found
}

export async function addAgreed(
  tx: Transaction,
  { who, student, now }: Doing,
  { what, who: doer, due }: AgreedSaid
): Promise<{ line: number }> {
  await lockStudent(tx, student)
  const values = { studentId: student, what, who: doer, dueOn: due, madeById: who.id, madeAt: new Date(now) }
  const [made] = await tx.insert(t.agreed).values(values).$returningId()
  const after = { line: made!.id, what, who: doer, due }
  await logEvent(tx, { at: now, account: who.id, student, action: 'agreed.made', after })
  return { line: made!.id }
}

/** Ticks a line off, or says that it is to be done after all. */
export async function tickAgreed(tx: Transaction, doing: Doing, id: number, isDone: boolean): Promise<void> {
  const before = await lockLine(tx, doing.student, id)
  if ((before.doneAt !== null) === isDone) return
  const { who, student, now } = doing
  await tx
    .update(t.agreed)
    .set(isDone ? { doneAt: new Date(now), doneById: who.id } : { doneAt: null, doneById: null })
    .where(eq(t.agreed.id, id))
  const after = { line: id, what: before.what, done: isDone }
  await logEvent(tx, { at: now, account: who.id, student, action: 'agreed.ticked', after })
}

export async function dropAgreed(tx: Transaction, { who, student, now }: Doing, id: number): Promise<void> {
  const before = await lockLine(tx, student, id)
  await tx
    .update(t.agreed)
    .set({ droppedAt: new Date(now) })
    .where(eq(t.agreed.id, id))
  const was = { line: id, what: before.what, who: before.who, due: before.dueOn }
  await logEvent(tx, { at: now, account: who.id, student, action: 'agreed.dropped', before: was })
}

async function lockLine(tx: Transaction, student: StudentId, id: number) {
  await lockStudent(tx, student)
  const [found] = await tx
    .select()
    .from(t.agreed)
    .where(all(eq(t.agreed.id, id), eq(t.agreed.studentId, student), isNull(t.agreed.droppedAt)))
  if (!found) throw new Refused(404, 'noLine', 'There is no such line among what was agreed.')
  return found
}
