/** Records of talks: when, how, and the advisor's summary, which the student reads too. */
import type { StudentId } from '#core/ids'
import type { Reader, Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { lockStudent } from '#server/features/record/lock'
import type { ActorContext } from '#server/features/route/route'
import { Refused } from '#server/http/problem'
import type { TalkRecordView } from '#shared/appointments/appointments'
import type { TalkRecordSaid } from '#shared/appointments/requests'
import { campusDate } from '#shared/when'
import { desc, eq } from 'drizzle-orm'

/** Talks with a student, the last first. */
export async function readTalkRecords(db: Reader, student: StudentId): Promise<TalkRecordView[]> {
  const rows = await db
    .select({ record: t.talkRecord, by: t.account.name })
    .from(t.talkRecord)
    .innerJoin(t.account, eq(t.account.id, t.talkRecord.byId))
    .where(eq(t.talkRecord.studentId, student))
    .orderBy(desc(t.talkRecord.onDate), desc(t.talkRecord.id))
  return rows.map(({ record: { id, onDate, how, summary }, by }) => ({ id, by, on: onDate, how, summary }))
}

export async function recordTalk(
  tx: Transaction,
  { who, student, now, zone }: ActorContext,
  { on, how, summary }: TalkRecordSaid
): Promise<{ talk: number }> {
  await lockStudent(tx, student)
  if (on > campusDate(now, zone))
    throw new Refused(422, 'notYet', 'A talk is recorded once it was held.', [
      { field: 'on', message: 'has to be today or before' }
    ])
  const [made] = await tx
    .insert(t.talkRecord)
    .values({ studentId: student, byId: who.id, onDate: on, how, summary, writtenAt: new Date(now) })
    .$returningId()
  await logEvent(tx, {
    at: now,
    account: who.id,
    student,
    action: 'talk.recorded',
    after: { talk: made!.id, by: who.name, on, how }
  })
  return { talk: made!.id }
}
