/** What is said of appointments and of talks. */
import type { Instant } from '#core/time'
import { campusDate, campusMinute, clockTime, dayText } from '#shared/when'
import type { TALKED_HOW } from './appointments'

export const HOW_WORDS: Record<(typeof TALKED_HOW)[number], string> = {
  inPerson: 'in person',
  byPhone: 'by phone',
  byVideo: 'by video',
  byMail: 'by mail'
}

/** `Thu 15 Apr 2027, 10:00 am to 10:30 am`. */
export function appointmentTime(
  { startsAt, endsAt }: { startsAt: Instant; endsAt: Instant },
  zone: string
): string {
  const at = (instant: Instant) => clockTime(campusMinute(instant, zone))
  return `${dayText(campusDate(startsAt, zone))}, ${at(startsAt)} to ${at(endsAt)}`
}
