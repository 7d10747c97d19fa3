/** Appointments for calendar programs: in the student's calendar of classes, and in an advisor's own. */
import type { Instant } from '#core/time'
import { all, type Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { appointmentCalendar, type CalendarAppointment } from '#server/features/week/calendar'
import type { AppointmentView } from '#shared/appointments/appointments'
import { eq, type SQL } from 'drizzle-orm'
import { appointmentsOf } from './queries'

/** Those that take their time, by whoever reads: `student` or `advisor` is the one whose calendar it is. */
async function eventsOf(
  db: Reader,
  whose: SQL,
  other: (one: AppointmentView) => string
): Promise<CalendarAppointment[]> {
  const active = all(whose, eq(t.appointment.active, true))
  const sequences = new Map(
    (
      await db.select({ id: t.appointment.id, n: t.appointment.sequence }).from(t.appointment).where(active)
    ).map((row) => [row.id, row.n])
  )
  return (await appointmentsOf(db, active)).map((one) => ({
    id: one.id,
    sequence: sequences.get(one.id) ?? 0,
    title: `Appointment: ${other(one)}`,
    startsAt: one.startsAt,
    endsAt: one.endsAt,
    place: one.place,
    description: [one.about, one.bring && `To bring: ${one.bring}`].filter(Boolean).join('\n'),
    isOpen: one.state === 'invited'
  }))
}

export const eventsOfStudent = (db: Reader, student: number): Promise<CalendarAppointment[]> =>
  eventsOf(db, eq(t.appointment.studentId, student), (one) => one.advisor.name)

/** The calendar of an advisor at a private address; undefined where it leads nowhere. */
export async function calendarAtAddress(db: Reader, key: string, now: Instant): Promise<string | undefined> {
  const [row] = await db
    .select({ advisor: t.advisorCalendar.advisorId })
    .from(t.advisorCalendar)
    .where(eq(t.advisorCalendar.key, key))
  if (!row) return undefined
  const events = await eventsOf(db, eq(t.appointment.advisorId, row.advisor), (one) => one.student.name)
  return appointmentCalendar('Appointments', events, now)
}
