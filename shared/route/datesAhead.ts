/** The next dates of a student, for a short list: openings, deadlines, payments, beginnings. */
import type { Instant } from '#core/time'
import type { StudentRecord } from '#shared/record/responses'
import { accountOf, openOf } from '#shared/charges/balance'
import { termsAlive, type Reading } from '#shared/reading'
import { campusDate, shortInstant } from '#shared/when'

export interface DateAhead {
  on: string
  what: string
}

/** In order, at most so many; a deadline at midnight is the end of the day before. */
export function datesAhead(
  studentRecord: Pick<StudentRecord, 'openings' | 'accounts'>,
  reading: Reading,
  { work, zone, now, most }: { work: string | undefined; zone: string; now: Instant; most: number }
): DateAhead[] {
  const { today } = reading
  const names = new Map(reading.standings.map(({ term }) => [term.code, term.name]))
  const rows: DateAhead[] = studentRecord.openings
    .filter((one) => one.opens >= now)
    .map((one) => ({
      on: campusDate(one.opens, zone),
      what: `${names.get(one.term) ?? one.term} opens for you, ${shortInstant(one.opens, zone).split(', ')[1]}`
    }))
  for (const { term, state, taken, adding, dropping } of termsAlive(reading)) {
    if (state !== 'ahead' && state !== 'underWay') continue
    const isMine = taken > 0 || term.code === work
    const lastDay = (end: Instant) => campusDate(end - 1, zone)
    if (isMine && adding !== 'ended')
      rows.push({ on: lastDay(term.addEndsAt), what: `last day to add a course of ${term.name}` })
    if (taken && dropping)
      rows.push({ on: lastDay(term.dropEndsAt), what: `last day to drop a course of ${term.name}` })
    if (isMine && state === 'ahead') {
      const account = accountOf(studentRecord, term.code)
      if (!account || openOf(account) > 0)
        rows.push({ on: term.paymentDueOn, what: `${term.name} payment due` })
      rows.push({ on: term.start, what: `${term.name} begins` })
    }
  }
  return rows
    .filter((one) => one.on >= today)
    .sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0))
    .slice(0, most)
}
