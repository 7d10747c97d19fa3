/** Both sides are reminded of an appointment the day before. */
import type { Instant } from '#core/time'
import { all, inTransaction, type Database } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { campusNow } from '#server/gateways/clock'
import { and, asc, eq, gt, isNull, lte, sql } from 'drizzle-orm'
import { tell } from './appointments'

const BEFORE_MS = 24 * 60 * 60 * 1000

/** Reminds of what begins within a day; of what was made or moved within that day nobody needs to be. */
export async function remindOfAppointments(db: Database): Promise<void> {
  while (await remindOne(db, await campusNow(db)));
}

/** @returns false once nobody is left to be reminded */
function remindOne(db: Database, now: Instant): Promise<boolean> {
  return inTransaction(db, async (tx) => {
    const [due] = await tx
      .select()
      .from(t.appointment)
      .where(
        all(
          and(eq(t.appointment.active, true), eq(t.appointment.state, 'booked')),
          isNull(t.appointment.remindedAt),
          gt(t.appointment.startsAt, new Date(now)),
          lte(t.appointment.startsAt, new Date(now + BEFORE_MS)),
          sql`timestampdiff(second, ${t.appointment.changedAt}, ${t.appointment.startsAt}) > ${BEFORE_MS / 1000}`
        )
      )
      .orderBy(asc(t.appointment.startsAt))
      .limit(1)
      .for('update', { skipLocked: true })
    if (!due) return false
    await tx
      .update(t.appointment)
      .set({ remindedAt: new Date(now) })
      .where(eq(t.appointment.id, due.id))
    await tell(tx, { who: null, student: due.studentId, now }, due.id, 'appointment.reminded')
    return true
  })
}
