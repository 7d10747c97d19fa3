/**
 * Meetings and when two of them clash.
 *
 * A meeting repeats on its weekdays from its first to its last date, both included, except on
 * holidays. Its hours are half-open: a class until 10:45 and one from 10:45 do not clash. Two
 * meetings clash when at least one date is common to both and their hours overlap.
 */
import { dayNumber, weekdayOf, type DayNumber, type IsoDate, type Minutes, type Weekday } from '../time'

export interface Meeting {
  days: readonly Weekday[]
  start: Minutes
  end: Minutes
  from: IsoDate
  to: IsoDate
  campus: string
  building: string | null
  /** With its building. Null while no room is assigned, and for a meeting online. */
  room: string | null
}

export interface Clash {
  /** Weekdays on which it happens. */
  days: Weekday[]
  /** Minutes of overlap on each of those days. */
  minutes: Minutes
  start: Minutes
  end: Minutes
  /** How many dates are hit, and the first one. */
  dates: number
  first: DayNumber
}

/** Days on which no class meets, as day numbers. */
export type Holidays = ReadonlySet<DayNumber>

/** What two meetings have in common; undefined when they do not clash. */
export function clashOf(a: Meeting, b: Meeting, holidays: Holidays = new Set()): Clash | undefined {
  const start = Math.max(a.start, b.start)
  const end = Math.min(a.end, b.end)
  if (end <= start) return undefined
  const common = a.days.filter((day) => b.days.includes(day))
  if (!common.length || a.to < b.from || b.to < a.from) return undefined
  const last = dayNumber(a.to < b.to ? a.to : b.to)
  const hit = new Set<Weekday>()
  let dates = 0
  let first: DayNumber | undefined
  for (let day = dayNumber(a.from > b.from ? a.from : b.from); day <= last; day++) {
    const weekday = weekdayOf(day)
    if (!common.includes(weekday) || holidays.has(day)) continue
    dates++
    first ??= day
    hit.add(weekday)
  }
  if (first === undefined) return undefined
  return { days: [...hit].sort((x, y) => x - y), minutes: end - start, start, end, dates, first }
}

/** Whether any of some meetings clashes with any of others. */
export function sharesClash(
  some: readonly Meeting[],
  others: readonly Meeting[],
  holidays: Holidays = new Set()
): boolean {
  return some.some((a) => others.some((b) => clashOf(a, b, holidays) !== undefined))
}

/** Whether two meetings both take place on some date that falls on the weekday. */
export function sharesDate(a: Meeting, b: Meeting, day: Weekday, holidays: Holidays): boolean {
  const last = dayNumber(a.to < b.to ? a.to : b.to)
  for (let date = dayNumber(a.from > b.from ? a.from : b.from); date <= last; date++) {
    if (weekdayOf(date) === day && !holidays.has(date)) return true
  }
  return false
}

/** The dates on which a meeting takes place, in order. */
export function datesOf(meeting: Meeting, holidays: Holidays = new Set()): DayNumber[] {
  const dates: DayNumber[] = []
  const last = dayNumber(meeting.to)
  for (let day = dayNumber(meeting.from); day <= last; day++) {
    if (meeting.days.includes(weekdayOf(day)) && !holidays.has(day)) dates.push(day)
  }
  return dates
}
