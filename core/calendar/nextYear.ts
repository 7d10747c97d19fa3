/** The same term a year later: all its dates moved by whole weeks, so that each stays on its weekday. */
import { dayNumber, isoDate, weekdayOf, type CivilTime, type DayNumber, type IsoDate } from '../time'
import type { TermDates } from './termDates'

/** The week of a day and the year to which the week belongs, by ISO 8601: week 1 holds the first Thursday. */
export function isoWeekOf(day: DayNumber): { year: number; week: number } {
  const thursday = day + 4 - weekdayOf(day)
  const year = Number(isoDate(thursday).slice(0, 4))
  return { year, week: Math.floor((thursday - dayNumber(`${isoDate(thursday).slice(0, 4)}-01-01`)) / 7) + 1 }
}

/** Weeks of a year by ISO 8601, 52 or 53: the 28th of December is always in the last one. */
export function isoWeeksIn(year: number): number {
  return isoWeekOf(dayNumber(`${String(year).padStart(4, '0')}-12-28`)).week
}

/**
 * Weeks after which the same weekday of the same ISO week comes again: 52, or 53 across a long year. From week 53 it is
 * the last week of the next year.
 */
export function weeksToNextYear(date: IsoDate): 52 | 53 {
  const { year, week } = isoWeekOf(dayNumber(date))
  return isoWeeksIn(year) === 53 && week < 53 ? 53 : 52
}

/** A date so many days later. @throws RangeError when the text is no date */
export const daysLater = (date: IsoDate, days: number): IsoDate => isoDate(dayNumber(date) + days)

/** Days from one date to about another, in whole weeks: what is moved by them stays on its weekday. */
export const wholeWeeksBetween = (from: IsoDate, to: IsoDate): number =>
  7 * Math.round((dayNumber(to) - dayNumber(from)) / 7)

/** The same hour on a date so many days later, whatever the clocks do meanwhile. */
export const hourDaysLater = (time: CivilTime, days: number): CivilTime =>
  `${daysLater(time.slice(0, 10), days)}${time.slice(10)}`

/**
 * The dates of a term as they are a year later. All move by the same whole weeks, by which its first day stays in the
 * same ISO week: what lies before and after what stays as it was. Holidays on a fixed day of the month move with them
 * and have to be looked at.
 */
export function inNextYear(dates: TermDates): TermDates {
  const days = 7 * weeksToNextYear(dates.start)
  const day = (date: IsoDate) => daysLater(date, days)
  const hour = (time: CivilTime) => hourDaysLater(time, days)
  const maybe = (time: CivilTime | null) => time && hour(time)
  return {
    start: day(dates.start),
    end: day(dates.end),
    addEnds: hour(dates.addEnds),
    dropFreeEnds: hour(dates.dropFreeEnds),
    dropEnds: hour(dates.dropEnds),
    linesClose: hour(dates.linesClose),
    intentionsDue: maybe(dates.intentionsDue),
    graduateBy: maybe(dates.graduateBy),
    paymentDue: day(dates.paymentDue),
    refunds: dates.refunds.map(({ until, percent }) => ({ until: hour(until), percent })),
    sessions: dates.sessions.map((one) => ({
      ...one,
      start: day(one.start),
      end: day(one.end),
      addEnds: maybe(one.addEnds),
      dropFreeEnds: maybe(one.dropFreeEnds),
      dropEnds: maybe(one.dropEnds)
    })),
    holidays: dates.holidays.map(({ date, name }) => ({ date: day(date), name }))
  }
}
