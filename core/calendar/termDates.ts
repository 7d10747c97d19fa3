/**
 * The dates of a term as whoever sets them writes them: days, and campus times without a zone. Days include both ends; a
 * time is the first instant at which something has ended.
 */
import type { Session } from '../catalog'
import { dayNumber, type CivilTime, type IsoDate } from '../time'
import { daysLater } from './nextYear'

export interface SessionPlan extends Session {
  /** Where the session has times of its own; null where those of the term hold. */
  addEnds: CivilTime | null
  dropFreeEnds: CivilTime | null
  dropEnds: CivilTime | null
}

export interface TermDates {
  start: IsoDate
  end: IsoDate
  addEnds: CivilTime
  /** Until then a drop leaves no trace; then a W, until `dropEnds`. */
  dropFreeEnds: CivilTime
  dropEnds: CivilTime
  /** From then on nobody in line is offered a seat. */
  linesClose: CivilTime
  intentionsDue: CivilTime | null
  graduateBy: CivilTime | null
  paymentDue: IsoDate
  /** Until when how much of what becomes cheaper is given back, in percent. */
  refunds: readonly { until: CivilTime; percent: number }[]
  sessions: readonly SessionPlan[]
  holidays: readonly { date: IsoDate; name: string }[]
}

/** What is wrong with the dates of a term, at its place: `sessions.1.end`. */
export interface DateFault {
  path: string
  message: string
}

/** Longest term, in days: a year of study. */
const LONGEST = 371

/** What is wrong with dates that are written well each; in the order in which they are read. Empty where nothing is. */
export function dateFaults(dates: TermDates): DateFault[] {
  const faults: DateFault[] = []
  const rule = (path: string, holds: boolean, message: string) => {
    if (!holds) faults.push({ path, message })
  }
  const { start, end } = dates
  const midnight: CivilTime = `${daysLater(end, 1)}T00:00`
  rule('end', start < end, 'has to be after the first day')
  rule('end', dayNumber(end) - dayNumber(start) <= LONGEST, 'has to be within a year of the first day')
  if (faults.length) return faults
  const within = (date: IsoDate) => date >= start && date <= end
  rule('addEnds', dates.addEnds <= midnight, 'has to be before the term is over')
  rule(
    'dropFreeEnds',
    dates.dropFreeEnds <= dates.dropEnds,
    'has to be no later than the end of dropping with a W'
  )
  rule('dropEnds', dates.dropEnds <= midnight, 'has to be before the term is over')
  rule('linesClose', dates.linesClose <= dates.addEnds, 'has to be no later than the end of adding')
  rule(
    'intentionsDue',
    dates.intentionsDue === null || dates.intentionsDue < `${start}T00:00`,
    'has to be before the first day'
  )
  rule(
    'graduateBy',
    dates.graduateBy === null || dates.graduateBy <= midnight,
    'has to be before the term is over'
  )
  rule('paymentDue', dates.paymentDue <= end, 'has to be before the term is over')
  dates.refunds.forEach(({ until, percent }, i) => {
    const before = dates.refunds[i - 1]
    rule(`refunds.${i}.until`, !before || until > before.until, 'has to be later than the step before')
    rule(`refunds.${i}.percent`, !before || percent < before.percent, 'has to be less than the step before')
  })
  rule('sessions', dates.sessions.length > 0, 'have to be one at least')
  dates.sessions.forEach((one, i) => {
    const at = (field: string) => `sessions.${i}.${field}`
    const twice = dates.sessions.findIndex((other) => other.code === one.code) < i
    rule(at('code'), !twice, 'has to be the code of no other session')
    rule(at('start'), within(one.start), 'has to be a day of the term')
    rule(at('end'), within(one.end), 'has to be a day of the term')
    rule(at('end'), one.start <= one.end, 'has to be no earlier than its first day')
    const sessionEnds: CivilTime = `${daysLater(one.end, 1)}T00:00`
    for (const field of ['addEnds', 'dropFreeEnds', 'dropEnds'] as const)
      rule(at(field), (one[field] ?? sessionEnds) <= sessionEnds, 'has to be before the session is over')
    rule(
      at('dropFreeEnds'),
      (one.dropFreeEnds ?? dates.dropFreeEnds) <= (one.dropEnds ?? dates.dropEnds),
      'has to be no later than the end of dropping with a W'
    )
  })
  dates.holidays.forEach((one, i) => {
    const twice = dates.holidays.findIndex((other) => other.date === one.date) < i
    rule(`holidays.${i}.date`, within(one.date), 'has to be a day of the term')
    rule(`holidays.${i}.date`, !twice, 'has to be named once')
  })
  return faults
}

/** Whether two terms share a day. */
export const overlap = (a: Pick<TermDates, 'start' | 'end'>, b: Pick<TermDates, 'start' | 'end'>): boolean =>
  a.start <= b.end && b.start <= a.end
