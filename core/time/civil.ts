/**
 * Civil dates and times of day, without a zone and without a clock.
 *
 * A date is `YYYY-MM-DD` (ISO 8601); a day number counts days from 1970-01-01; a weekday is the ISO
 * number, Monday 1 to Sunday 7; a time of day is whole minutes after midnight.
 */
export type IsoDate = string
export type DayNumber = number
/** A date and an hour on campus, `YYYY-MM-DDTHH:MM`; of two the later one is the greater text. */
export type CivilTime = string
export type Weekday = 1 | 2 | 3 | 4 | 5 | 6 | 7
export type Minutes = number
/** Milliseconds since 1970-01-01T00:00Z. */
export type Instant = number

const DAY_MS = 86_400_000

export const WEEKDAYS: readonly Weekday[] = [1, 2, 3, 4, 5, 6, 7]

/** Days since 1970-01-01. @throws RangeError when the text is no date of the calendar. */
export function dayNumber(date: IsoDate): DayNumber {
  const [year, month, day] = [digits(date, 0, 4), digits(date, 5, 7), digits(date, 8, 10)]
  const isDate = date.length === 10 && date[4] === '-' && date[7] === '-'
  if (!isDate || !(year >= 0) || !(month >= 1 && month <= 12) || !(day >= 1 && day <= daysIn(year, month)))
    throw new RangeError(`expected a date as YYYY-MM-DD, got "${date}"`)
  // Years begin in March, so that the leap day is the last; eras have 400 years (proleptic Gregorian calendar, ISO 8601).
  const shifted = month > 2 ? year : year - 1
  const era = Math.floor(shifted / 400)
  const yearOfEra = shifted - era * 400
  const dayOfYear = Math.floor((153 * (month > 2 ? month - 3 : month + 9) + 2) / 5) + day - 1
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear
  return era * DAYS_OF_ERA + dayOfEra - DAYS_TO_1970
}
const DAYS_OF_ERA = 146_097
const DAYS_TO_1970 = 719_468

/** The number that stands from one place to another of a text; NaN where not all of them are digits. */
function digits(text: string, from: number, to: number): number {
  let number = 0
  for (let i = from; i < to; i++) {
    const digit = text.charCodeAt(i) - ZERO
    if (!(digit >= 0 && digit <= 9)) return NaN
    number = number * 10 + digit
  }
  return number
}
const ZERO = '0'.charCodeAt(0)

function daysIn(year: number, month: number): number {
  if (month === 2) return year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0) ? 29 : 28
  return month === 4 || month === 6 || month === 9 || month === 11 ? 30 : 31
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
