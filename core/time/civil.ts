/**
 * Civil dates and times of day, without a zone and without a clock.
 *
 * A date is `YYYY-MM-DD` (ISO 8601); a day number counts days from 1970-01-01; a weekday is the ISO
 * number, Monday 1 to Sunday 7; a time of day is whole minutes after midnight.
 */
export type IsoDate = string
export type DayNumber = number
export type Weekday = 1 | 2 | 3 | 4 | 5 | 6 | 7
export type Minutes = number
/** Milliseconds since 1970-01-01T00:00Z. */
export type Instant = number

const DAY_MS = 86_400_000
const ISO_DATE = /^\d{4}-\d{2}-\d{2}$/

export const WEEKDAYS: readonly Weekday[] = [1, 2, 3, 4, 5, 6, 7]

/** Days since 1970-01-01. @throws RangeError when the text is no date of the calendar. */
export function dayNumber(date: IsoDate): DayNumber {
  const ms = ISO_DATE.test(date) ? Date.parse(`${date}T00:00:00Z`) : NaN
  if (Number.isNaN(ms) || new Date(ms).toISOString().slice(0, 10) !== date) {
    throw new RangeError(`expected a date as YYYY-MM-DD, got "${date}"`)
  }
  return ms / DAY_MS
}

export function isoDate(day: DayNumber): IsoDate {
  return new Date(day * DAY_MS).toISOString().slice(0, 10)
}

/** 1970-01-01 was a Thursday (4). */
export function weekdayOf(day: DayNumber): Weekday {
  return (((((day + 3) % 7) + 7) % 7) + 1) as Weekday
}

/** Minutes after midnight of `HH:MM` on a 24-hour clock. @throws RangeError otherwise. */
export function minutes(clock: string): Minutes {
  const found = /^(\d{1,2}):(\d{2})$/.exec(clock)
  const hour = Number(found?.[1])
  const minute = Number(found?.[2])
  if (!found || hour > 23 || minute > 59) throw new RangeError(`expected a time as HH:MM, got "${clock}"`)
  return hour * 60 + minute
}
