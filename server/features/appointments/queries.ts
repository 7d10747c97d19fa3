/** Appointments as they are read. */
import type { Instant } from '#core/time'
import { all, type Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import type { Relation } from '#server/http/access'
import type { AppointmentView } from '#shared/appointments/appointments'
import { and, asc, eq, gt, type SQL } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'

/** Appointments in order of their time. */
export async function appointmentsOf(db: Reader, whose: SQL): Promise<AppointmentView[]> {
  const [advisorAccount, changer] = [alias(t.account, 'advisor_account'), alias(t.account, 'changer')]
  const rows = await db
    .select({
      appointment: t.appointment,
      student: t.account.name,
      advisor: advisorAccount.name,
      changedBy: changer.name
    })
    .from(t.appointment)
    .innerJoin(t.student, eq(t.student.id, t.appointment.studentId))
    .innerJoin(t.account, eq(t.account.id, t.student.accountId))
    .innerJoin(t.advisor, eq(t.advisor.id, t.appointment.advisorId))
    .innerJoin(advisorAccount, eq(advisorAccount.id, t.advisor.accountId))
    .innerJoin(changer, eq(changer.id, t.appointment.changedById))
    .where(whose)
    .orderBy(asc(t.appointment.startsAt), asc(t.appointment.id))
  return rows.map(({ appointment: one, student, advisor, changedBy }) => ({
    id: one.id,
    student: { id: one.studentId, name: student },
    advisor: { id: one.advisorId, name: advisor },
    startsAt: one.startsAt.getTime(),
    endsAt: one.endsAt.getTime(),
    place: one.place,
    about: one.about,
    bring: one.bring,
    state: one.state,
    changedBy,
    words: one.words
  }))
}

/** A student's appointments as somebody reads them: the student all, an advisor their own. */
export async function readAppointments(
  db: Reader,
  student: number,
  reader: { account: number; relation: Relation }
): Promise<AppointmentView[]> {
  if (reader.relation === 'registrar') return []
  const own = eq(t.appointment.studentId, student)
  return appointmentsOf(
    db,
    reader.relation === 'self' ? own : and(own, eq(t.advisor.accountId, reader.account))!
  )
}

/** Appointments that take their time, and end after an instant. */
export const activeFrom = (db: Reader, whose: ReturnType<typeof eq>, now: Instant) =>
  db
    .select({ id: t.appointment.id, startsAt: t.appointment.startsAt, endsAt: t.appointment.endsAt })
    .from(t.appointment)
    .where(all(whose, eq(t.appointment.active, true), gt(t.appointment.endsAt, new Date(now))))
