/** Term dates as iCalendar (RFC 5545): days without a zone, instants in UTC. */
import ical from 'ical-generator'
import type { Instant } from '#core/time'
import type { TermDate } from '#shared/route/termDates'

export function calendarOf(name: string, dates: readonly TermDate[], now: Instant): string {
  const calendar = ical({ name, prodId: { company: 'Ridgeway', product: 'Term dates', language: 'EN' } })
  for (const date of dates)
    calendar.createEvent({
      id: date.uid,
      stamp: new Date(now),
      summary: date.title,
      start: 'on' in date ? new Date(`${date.on}T00:00:00Z`) : new Date(date.at),
      allDay: 'on' in date
    })
  return calendar.toString()
}
