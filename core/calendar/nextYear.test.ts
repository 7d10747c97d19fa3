import { DateTime } from 'luxon'
import { describe, expect, it } from 'vitest'
import { dayNumber, isoDate, weekdayOf } from '../time'
import { dateFaults, inNextYear, isoWeekOf, isoWeeksIn, overlap, weeksToNextYear, type TermDates } from '.'

const autumn: TermDates = {
  start: '2026-08-31',
  end: '2026-12-18',
  addEnds: '2026-09-12T00:00',
  dropFreeEnds: '2026-09-12T00:00',
  dropEnds: '2026-11-21T00:00',
  linesClose: '2026-09-10T00:00',
  intentionsDue: '2025-12-29T00:00',
  graduateBy: '2026-11-20T17:00',
  paymentDue: '2026-08-03',
  refunds: [
    { until: '2026-09-05T00:00', percent: 100 },
    { until: '2026-09-19T00:00', percent: 50 }
  ],
  sessions: [
    {
      ...{ code: 'FULL', name: 'Full term', half: 'full', start: '2026-08-31', end: '2026-12-18' },
      ...{ addEnds: null, dropFreeEnds: null, dropEnds: null }
    },
    {
      ...{ code: 'H1', name: 'First half', half: 'first', start: '2026-08-31', end: '2026-10-23' },
      ...{ addEnds: '2026-09-05T00:00', dropFreeEnds: null, dropEnds: '2026-10-12T00:00' }
    }
  ],
  holidays: [{ date: '2026-11-26', name: 'Recess' }]
}

describe('ISO weeks', () => {
  // Source: examples of ISO 8601 week dates, common practice (2008-12-29 is 2009-W01-1, 2010-01-03 is 2009-W53-7).
  it.each([
    ['2008-12-28', 2008, 52],
    ['2008-12-29', 2009, 1],
    ['2010-01-03', 2009, 53],
    ['2010-01-04', 2010, 1],
    ['2026-12-31', 2026, 53],
    ['2027-01-01', 2026, 53]
  ])('%s is in week %i of %i', (date, year, week) => {
    expect(isoWeekOf(dayNumber(date))).toEqual({ year, week })
  })
  it('are those of another library on every day of a hundred years', () => {
    for (let day = dayNumber('1980-01-01'); day < dayNumber('2080-01-01'); day++) {
      const { weekYear, weekNumber } = DateTime.fromISO(isoDate(day), { zone: 'utc' })
      if (isoWeekOf(day).year !== weekYear || isoWeekOf(day).week !== weekNumber)
        expect({ date: isoDate(day), ...isoWeekOf(day) }).toEqual({ year: weekYear, week: weekNumber })
    }
    for (let year = 1980; year < 2080; year++)
      expect(isoWeeksIn(year)).toBe(DateTime.utc(year, 6, 1).weeksInWeekYear)
  })
})

describe('the next year', () => {
  it('has the weekday in the same week again, after a long year too', () => {
    for (let day = dayNumber('2020-01-01'); day < dayNumber('2040-01-01'); day++) {
      const then = day + 7 * weeksToNextYear(isoDate(day))
      const [from, to] = [isoWeekOf(day), isoWeekOf(then)]
      expect(weekdayOf(then)).toBe(weekdayOf(day))
      expect(to.year).toBe(from.year + 1)
      expect(to.week).toBe(Math.min(from.week, isoWeeksIn(to.year)))
    }
  })
  it('moves every date of a term by the same weeks', () => {
    const next = inNextYear(autumn)
    // 2026 has 53 weeks.
    expect(next.start).toBe('2027-09-06')
    const days = dayNumber(next.start) - dayNumber(autumn.start)
    const texts = (dates: TermDates) =>
      JSON.stringify(dates)
        .match(/\d{4}-\d\d-\d\d(T\d\d:\d\d)?/g)!
        .map((one) => [one.slice(0, 10), one.slice(10)])
    const [before, after] = [texts(autumn), texts(next)]
    expect(after.length).toBe(before.length)
    after.forEach(([date, hour], i) => {
      expect(dayNumber(date!) - dayNumber(before[i]![0]!)).toBe(days)
      expect(hour).toBe(before[i]![1])
    })
    expect(dateFaults(next)).toEqual([])
    expect(inNextYear(next).start).toBe('2028-09-04')
  })
})

describe('the dates of a term', () => {
  const paths = (changed: Partial<TermDates>) => dateFaults({ ...autumn, ...changed }).map((one) => one.path)
  const session = autumn.sessions[1]!
  it('are well', () => expect(dateFaults(autumn)).toEqual([]))
  it.each<[string, Partial<TermDates>, string[]]>([
    ['ends before it begins', { end: '2026-08-31' }, ['end']],
    ['lasts for years', { end: '2028-08-31' }, ['end']],
    ['takes additions after its end', { addEnds: '2026-12-19T00:01' }, ['addEnds']],
    ['takes drops after its end', { dropEnds: '2026-12-20T00:00' }, ['dropEnds']],
    [
      'has a W before the end of free drops',
      { dropEnds: '2026-09-11T00:00' },
      ['dropFreeEnds', 'sessions.0.dropFreeEnds']
    ],
    ['offers seats after adding', { linesClose: '2026-09-12T00:01' }, ['linesClose']],
    ['asks for intentions too late', { intentionsDue: '2026-08-31T00:00' }, ['intentionsDue']],
    ['takes applications too late', { graduateBy: '2026-12-19T00:01' }, ['graduateBy']],
    ['is paid after it', { paymentDue: '2026-12-19' }, ['paymentDue']],
    ['has no session', { sessions: [] }, ['sessions']],
    [
      'has a session twice, outside of it',
      { sessions: [session, { ...session, start: '2026-08-30', end: '2026-08-29' }] },
      [
        'sessions.1.code',
        'sessions.1.start',
        'sessions.1.end',
        'sessions.1.end',
        'sessions.1.addEnds',
        'sessions.1.dropEnds'
      ]
    ],
    [
      'has holidays twice and outside',
      { holidays: [...autumn.holidays, ...autumn.holidays, { date: '2026-12-25', name: 'Rest' }] },
      ['holidays.1.date', 'holidays.2.date']
    ],
    [
      'gives back more later',
      { refunds: [...autumn.refunds].reverse() },
      ['refunds.1.until', 'refunds.1.percent']
    ]
  ])('%s', (_, changed, expected) => expect(paths(changed)).toEqual(expected))
  it('may reach up to the midnight after the last day', () => {
    expect(paths({ addEnds: '2026-12-19T00:00', dropEnds: '2026-12-19T00:00' })).toEqual([])
  })
  it('share a day with another term or none', () => {
    const span = (start: string, end: string) => ({ start, end })
    expect(overlap(autumn, span('2026-12-18', '2027-01-20'))).toBe(true)
    expect(overlap(autumn, span('2026-12-19', '2027-01-20'))).toBe(false)
    expect(overlap(span('2026-01-20', '2026-08-31'), autumn)).toBe(true)
  })
})
