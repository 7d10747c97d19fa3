/** Transcripts to somebody outside: asked for, taken back, and sent once nothing holds them up. */
import { asc, desc, eq, ne } from 'drizzle-orm'
import { studentId, termCode, type StudentId } from '#core/ids'
import type { Instant } from '#core/time'
import { all, inTransaction, type Database, type Reader, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { termRow } from '#server/features/catalog/catalog'
import { readStudentRecords } from '#server/features/record/studentRecords'
import type { ActorContext } from '#server/features/route/route'
import type { TranscriptSender } from '#server/gateways/transcripts'
import { Refused } from '#server/http/problem'
import type { CatalogContext } from '#shared/catalog/context'
import { readStudent, type Reading } from '#shared/reading'
import type { TranscriptAsked } from '#shared/record/requests'
import type { TranscriptOrder } from '#shared/record/responses'
import { transcriptOf } from '#shared/record/transcript'
import { lockStudent } from './lock'

/** Those of a student that were not taken back, the last first. */
export async function readTranscriptOrders(db: Reader, student: StudentId): Promise<TranscriptOrder[]> {
  const rows = await db
    .select({ order: t.transcriptOrder, after: t.term.code })
    .from(t.transcriptOrder)
    .leftJoin(t.term, eq(t.term.id, t.transcriptOrder.afterTermId))
    .where(all(eq(t.transcriptOrder.studentId, student), ne(t.transcriptOrder.state, 'withdrawn')))
    .orderBy(desc(t.transcriptOrder.id))
  return rows.map(({ order, after }) => ({
    ...{ id: order.id, to: order.recipient, email: order.email },
    after: after === null ? null : termCode(after),
    askedAt: order.askedAt.getTime(),
    sentAt: order.sentAt?.getTime() ?? null
  }))
}

/** More than anybody needs at once. */
const MOST_WAITING = 20

/** @throws Refused where nothing is due in the term to wait for, the same waits already, or too many do */
export async function askForTranscript(
  tx: Transaction,
  { who, student, now }: ActorContext,
  { to, email, after }: TranscriptAsked,
  catalogContext: CatalogContext
): Promise<{ transcript: number }> {
  await lockStudent(tx, student)
  const [record] = after ? await readStudentRecords(tx, [student], 'self') : []
  if (after && !isDue(readStudent(record!, catalogContext, now), after))
    throw new Refused(422, 'nothingDue', `No grade is due in ${(await termRow(tx, after)).name}.`, [
      {
        field: 'after',
        message: 'has to be a term in which a course of the record has no grade yet, or left out'
      }
    ])
  const waiting = await tx
    .select({ email: t.transcriptOrder.email, to: t.transcriptOrder.recipient })
    .from(t.transcriptOrder)
    .where(all(eq(t.transcriptOrder.studentId, student), eq(t.transcriptOrder.state, 'waiting')))
  if (waiting.some((one) => one.email === email && one.to === to))
    throw new Refused(409, 'askedAlready', `One to ${to} waits to be sent already.`)
  if (waiting.length >= MOST_WAITING)
    throw new Refused(409, 'tooMany', `${MOST_WAITING} transcripts wait to be sent; take one back first.`)
  const afterTermId = after && (await termRow(tx, after)).id
  const [made] = await tx
    .insert(t.transcriptOrder)
    .values({
      ...{ studentId: student, recipient: to, email, afterTermId, state: 'waiting' as const },
      askedAt: new Date(now)
    })
    .$returningId()
  const said = { transcript: made!.id, to, email, after }
  await logEvent(tx, { at: now, account: who.id, student, action: 'transcript.asked', after: said })
  return { transcript: made!.id }
}

/** @throws Refused for one that is sent */
export async function withdrawTranscript(
  tx: Transaction,
  { who, student, now }: ActorContext,
  id: number
): Promise<void> {
  const [order] = await tx.select().from(t.transcriptOrder).where(eq(t.transcriptOrder.id, id)).for('update')
  if (order?.studentId !== student) throw new Refused(404, 'noTranscript', 'There is no such transcript.')
  if (order.state !== 'waiting')
    throw new Refused(
      409,
      'notWaiting',
      order.state === 'sent' ? 'It is sent already.' : 'It was taken back already.'
    )
  await tx.update(t.transcriptOrder).set({ state: 'withdrawn' }).where(eq(t.transcriptOrder.id, id))
  const before = { transcript: id, to: order.recipient }
  await logEvent(tx, { at: now, account: who.id, student, action: 'transcript.withdrawn', before })
}

/** Whether a course of a term that has begun has no grade yet. */
const isDue = ({ attempts }: Pick<Reading, 'attempts'>, term: string): boolean =>
  attempts.counted.some((one) => one.term === term && one.status === 'underWay')

/**
 * Sends those that nothing holds up, each once: the receiver knows it by its reference. One that fails is tried again
 * with the next turn, and holds up none of the others.
 */
export async function sendTranscripts(
  db: Database,
  catalogContext: CatalogContext,
  sender: TranscriptSender,
  now: Instant
): Promise<void> {
  const waiting = await db
    .select({ id: t.transcriptOrder.id })
    .from(t.transcriptOrder)
    .where(eq(t.transcriptOrder.state, 'waiting'))
    .orderBy(asc(t.transcriptOrder.id))
  for (const { id } of waiting)
    await inTransaction(db, (tx) => sendOne(tx, id, { catalogContext, sender, now }))
}

async function sendOne(
  tx: Transaction,
  id: number,
  { catalogContext, sender, now }: { catalogContext: CatalogContext; sender: TranscriptSender; now: Instant }
): Promise<void> {
  const [order] = await tx
    .select()
    .from(t.transcriptOrder)
    .where(all(eq(t.transcriptOrder.id, id), eq(t.transcriptOrder.state, 'waiting')))
    .for('update', { skipLocked: true })
  if (!order) return
  const { recipient: to, email, studentId: of, afterTermId } = order
  const [awaited] = afterTermId
    ? await tx.select({ code: t.term.code }).from(t.term).where(eq(t.term.id, afterTermId))
    : []
  const [record] = await readStudentRecords(tx, [studentId(of)], 'self')
  if (record!.holds.some((hold) => hold.stopsTranscript)) return
  const reading = readStudent(record!, catalogContext, now)
  if (awaited && isDue(reading, awaited.code)) return
  const [institution] = await tx.select({ name: t.institution.name }).from(t.institution).limit(1)
  const transcript = transcriptOf({
    ...{ student: record!, reading, catalogContext, now },
    ...{ institution: institution!.name, isOfficial: true }
  })
  const sent = { reference: `ridgeway-transcript-${id}`, to, email, transcript }
  const arrived = await sender.send(sent).then(
    () => true,
    () => false
  )
  if (!arrived) return
  const values = { state: 'sent' as const, sentAt: new Date(now) }
  await tx.update(t.transcriptOrder).set(values).where(eq(t.transcriptOrder.id, id))
  const after = { transcript: id, to }
  await logEvent(tx, { at: now, account: null, student: of, action: 'transcript.sent', after })
}
