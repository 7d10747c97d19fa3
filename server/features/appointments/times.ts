/** Instants, and parts of days on campus. */
import type { Slot } from '#core/appointments'
import type { Instant, IsoDate, Minutes } from '#core/time'
import { campusDate, campusMinute } from '#shared/when'
import { DateTime } from 'luxon'

/** The instant of a minute of a day on campus. */
export function instantAt(date: IsoDate, minute: Minutes, zone: string): Instant {
  return DateTime.fromISO(date, { zone })
    .set({ hour: Math.floor(minute / 60), minute: minute % 60 })
    .toMillis()
}

/** The part of a day that something takes on campus. */
export const slotAt = (startsAt: Instant, endsAt: Instant, zone: string): Slot => {
  const start = campusMinute(startsAt, zone)
  return { date: campusDate(startsAt, zone), start, end: start + (endsAt - startsAt) / 60_000 }
}
