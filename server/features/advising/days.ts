import { DateTime } from 'luxon'
import type { Instant } from '#core/time'
import { Refused } from '#server/http/problem'

/** The first instant after a day on campus. */
const endOf = (day: string, zone: string): Instant =>
  DateTime.fromISO(day, { zone }).plus({ days: 1 }).toMillis()

/** Until when something stands, whose last day is named. @throws Refused where that day is over */
export function standsUntil(day: string | null, { now, zone }: { now: Instant; zone: string }): Date | null {
  if (day === null) return null
  const until = endOf(day, zone)
  if (until <= now)
    throw new Refused(422, 'endedAlready', 'The last day on which it is to stand is over.', [
      { field: 'until', message: 'has to be today or later' }
    ])
  return new Date(until)
}
