/** Dates and times as people read them, in campus time. */
import type { Instant, IsoDate, Minutes, Weekday } from '#core/time'

const formats = new Map<string, Intl.DateTimeFormat>()

function parts(at: Instant, zone: string): Record<string, string> {
  let format = formats.get(zone)
  if (!format) {
    format = new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      weekday: 'short',
      day: 'numeric',
      month: 'short',
      year: 'numeric',
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23'
    })
    formats.set(zone, format)
  }
  const found = Object.fromEntries(format.formatToParts(at).map((part) => [part.type, part.value]))
  return { ...found, month: found.month!.slice(0, 3) }
}

export const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']
export const DAY_NAMES: Record<Weekday, string> = {
  1: 'Mon',
  2: 'Tue',
  3: 'Wed',
  4: 'Thu',
  5: 'Fri',
  6: 'Sat',
  7: 'Sun'
}
export const LONG_DAY_NAMES: Record<Weekday, string> = {
  1: 'Monday',
  2: 'Tuesday',
  3: 'Wednesday',
  4: 'Thursday',
  5: 'Friday',
  6: 'Saturday',
  7: 'Sunday'
}

/** The date at a place at an instant. */
export function campusDate(at: Instant, zone: string): IsoDate {
  const { year, month, day } = parts(at, zone)
  return `${year}-${String(MONTHS.indexOf(month!) + 1).padStart(2, '0')}-${day!.padStart(2, '0')}`
}

/** The minute of the day at a place at an instant. */
export function campusMinute(at: Instant, zone: string): Minutes {
  const { hour, minute } = parts(at, zone)
  return Number(hour) * 60 + Number(minute)
}

/** `7:00 am` */
export function clockTime(minutes: Minutes): string {
  const hour = Math.floor(minutes / 60) % 24
  const minute = String(minutes % 60).padStart(2, '0')
  return `${hour % 12 || 12}:${minute} ${hour < 12 ? 'am' : 'pm'}`
}

/** `3 h 05`: how long something lasts. */
export function duration(minutes: Minutes): string {
  return `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`
}

/** `09:30`: a time of day as a field for times holds it. */
export function timeField(minutes: Minutes): string {
  return `${String(Math.floor(minutes / 60) % 24).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`
}

/** `9:30–10:45`, with am or pm where it is needed to read it rightly. */
export function hours(start: Minutes, end: Minutes): string {
  const bare = (text: string) => text.slice(0, -3)
  const [from, to] = [clockTime(start), clockTime(end)]
  return start >= 8 * 60 && end <= 18 * 60
    ? `${bare(from)}–${bare(to)}`
    : `${from.slice(-2) === to.slice(-2) ? bare(from) : from}–${to}`
}

/** `Mon 12 Apr 2027, 7:00 am` */
export function instantText(at: Instant, zone: string): string {
  const { weekday, day, month, year, hour, minute } = parts(at, zone)
  return `${weekday} ${day} ${month} ${year}, ${clockTime(Number(hour) * 60 + Number(minute))}`
}

/** `Mon 12 Apr, 7:00 am`: where the year goes without saying. */
export function shortInstant(at: Instant, zone: string): string {
  return instantText(at, zone).replace(/ \d{4},/, ',')
}

/**
 * `Fri 10 Sep 2027, 5:00 pm`: until when something can be done. A deadline is the instant from which it cannot, so
 * midnight is said as what it is for people: `the end of Thu 9 Sep 2027`.
 */
export function deadlineText(at: Instant, zone: string): string {
  const { hour, minute } = parts(at, zone)
  if (Number(hour) || Number(minute)) return instantText(at, zone)
  return `the end of ${instantText(at - 1, zone).replace(/,.*/, '')}`
}

/** `Mon 2 Aug 2027` */
export function dayText(date: IsoDate): string {
  return instantText(Date.parse(`${date}T12:00:00Z`), 'UTC').replace(/,.*/, '')
}

/** `12 Apr` */
export function dayMonth(date: IsoDate): string {
  return `${Number(date.slice(8))} ${MONTHS[Number(date.slice(5, 7)) - 1]}`
}

/** `12 Apr`: the campus day of an instant. */
export function shortDay(at: Instant, zone: string): string {
  return dayMonth(campusDate(at, zone))
}

const MINUTE = 60_000
const DAY = 24 * 60 * MINUTE

/** `3 d 4 h`, `5 h 12 m`, `12 m`: time left, rounded down. */
export function timeLeft(ms: number): string {
  const minutes = Math.max(0, Math.floor(ms / MINUTE))
  const [d, h, m] = [Math.floor(minutes / 1440), Math.floor(minutes / 60) % 24, minutes % 60]
  if (d) return h ? `${d} d ${h} h` : `${d} d`
  return h ? `${h} h ${m} m` : `${m} m`
}

/** `3 d 04:12:36`: a countdown to the second. */
export function countdown(ms: number): string {
  const seconds = Math.max(0, Math.ceil(ms / 1000))
  const two = (n: number) => String(n).padStart(2, '0')
  const clock = `${two(Math.floor(seconds / 3600) % 24)}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}`
  const days = Math.floor(seconds / 86_400)
  return days ? `${days} d ${clock}` : clock
}

/** `today`, `yesterday`, `4 days ago`: how long since, by campus days. */
export function ago(at: Instant, now: Instant, zone: string): string {
  const days = Math.round((Date.parse(campusDate(now, zone)) - Date.parse(campusDate(at, zone))) / DAY)
  if (days <= 0) return 'today'
  return days === 1 ? 'yesterday' : `${days} days ago`
}
