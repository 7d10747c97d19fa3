/** Classes as iCalendar, read back with a reference reader and compared date by date. */
import ICAL from 'ical.js'
import { DateTime } from 'luxon'
import { describe, expect, it } from 'vitest'
import { dayNumber, isoDate } from '#core/time'
import { datesOf, type Holidays, type Section } from '#core/week'
import { meeting, section } from '../../core/testing/build'
import { classCalendar } from '#server/features/week/calendar'

const ZONE = 'America/New_York'
const HOLIDAYS = new Set(['2027-09-06', '2027-11-24', '2027-11-25', '2027-11-26'].map(dayNumber))
const NOW = Date.parse('2027-04-09T13:40:00Z')

const write = (sections: Section[], holidays: Holidays = HOLIDAYS, zone = ZONE, held = true) =>
  classCalendar(
    'Classes',
    sections.map((one) => ({ section: one, title: 'Soil Process', campus: 'Hill campus', held })),
    { zone, holidays, now: NOW }
  )

function read(text: string) {
  const calendar = new ICAL.Component(ICAL.parse(text) as unknown[])
  const zones = calendar.getAllSubcomponents('vtimezone').map((one) => new ICAL.Timezone(one))
  for (const zone of zones) ICAL.TimezoneService.register(zone)
  const events = calendar.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one))
  return { calendar, zones, events }
}

/** The instants at which an event takes place, as the reader works them out. */
function instants(event: InstanceType<typeof ICAL.Event>): number[] {
  if (!event.isRecurring()) return [event.startDate.toUnixTime() * 1000]
  const found: number[] = []
  const dates = event.iterator()
  for (let next = dates.next(); next; next = dates.next()) found.push(next.toUnixTime() * 1000)
  return found
}

/** The instants at which a meeting takes place by its dates and the hours on campus. */
const expected = (one: Section['meetings'][number], holidays: Holidays, zone = ZONE) =>
  datesOf(one, holidays).map((day) =>
    DateTime.fromISO(isoDate(day), { zone })
      .set({ hour: Math.floor(one.start / 60), minute: one.start % 60 })
      .toMillis()
  )

describe('classes in a calendar (RFC 5545, read with ical.js)', () => {
  it('take place on the dates of the schedule, over the end of daylight saving time and without holidays', () => {
    const sections = [
      section('SOIL 220', [meeting('TR', '13:00', '14:15')]),
      section('MATH 231', [meeting('MWF', '8:00', '8:50')]),
      section('ENDA 325', [meeting('M', '18:00', '20:45', { to: '2027-10-22' })])
    ]
    const { events } = read(write(sections))
    expect(events).toHaveLength(3)
    for (const [i, event] of events.entries()) {
      const [only] = sections[i]!.meetings
      expect(instants(event)).toEqual(expected(only!, HOLIDAYS))
      expect(event.duration.toSeconds()).toBe((only!.end - only!.start) * 60)
    }
    // Daylight saving time ends on 7 November 2027: the same hour on campus is an hour later in UTC.
    const utc = instants(events[0]!).map((at) => new Date(at).getUTCHours())
    expect(new Set(utc)).toEqual(new Set([17, 18]))
  })
  it('begin on the first date that is no holiday, and hold where the term begins with one', () => {
    const one = section('MATH 231', [meeting('M', '9:30', '10:45', { from: '2027-09-06' })])
    const { events } = read(write([one]))
    expect(isoDate(dayNumber(events[0]!.startDate.toString().slice(0, 10)))).toBe('2027-09-13')
    expect(instants(events[0]!)).toEqual(expected(one.meetings[0]!, HOLIDAYS))
  })
  it('hold in other zones and over the beginning of daylight saving time as well', () => {
    for (const zone of ['Europe/London', 'Australia/Sydney', 'America/Phoenix']) {
      const one = section('MATH 231', [
        meeting('TR', '2:30', '3:45', { from: '2027-01-18', to: '2027-11-20' })
      ])
      const { events } = read(write([one], new Set(), zone))
      expect({ zone, at: instants(events[0]!) }).toEqual({
        zone,
        at: expected(one.meetings[0]!, new Set(), zone)
      })
    }
  })
  it('have one event for a single date, and none for what has no hours', () => {
    const trip = section('FELD 210', [
      meeting('S', '9:00', '16:00', { from: '2027-10-09', to: '2027-10-09' })
    ])
    const { events } = read(write([trip, section('LANG 140')]))
    expect(events.map((one) => [one.isRecurring(), one.startDate.toString()])).toEqual([
      [false, '2027-10-09T09:00:00']
    ])
  })
  it('bring the rules of their zone, end their repetition in UTC, and stand after them', () => {
    const text = write([section('MATH 231', [meeting('MW', '9:30', '10:45')])])
    expect(read(text).zones.map((one) => one.tzid)).toEqual([ZONE])
    expect(text).toMatch(/RRULE:[^\r]*UNTIL=20271217T154500Z/)
    expect(text).toMatch(/DTSTAMP:20270409T134000Z/)
    expect(text.indexOf('END:VTIMEZONE')).toBeLessThan(text.indexOf('BEGIN:VEVENT'))
    expect(text.endsWith('END:VCALENDAR\r\n')).toBe(true)
  })
  it('keep their identity from one file to the next, and say whether a seat is held', () => {
    const one = section('SOIL 220', [
      meeting('T', '13:00', '14:15', { room: 'Fern 12' }),
      meeting('F', '9:00', '10:00')
    ])
    const [held, picked] = [read(write([one])).events, read(write([one], HOLIDAYS, ZONE, false)).events]
    expect(held.map((event) => event.uid)).toEqual(picked.map((event) => event.uid))
    expect(new Set(held.map((event) => event.uid)).size).toBe(2)
    expect(held[0]!.location).toBe('Fern 12, Hill campus')
    const status = (event: (typeof held)[number]) => event.component.getFirstPropertyValue('status')
    expect([status(held[0]!), status(picked[0]!)]).toEqual(['CONFIRMED', 'TENTATIVE'])
    expect(picked[0]!.summary).toContain('picked, no seat yet')
  })
  it('are folded and escaped (RFC 5545, 3.1 and 3.3.11)', () => {
    const topic = `Peat; ponds, and \\ a title of ${'many words '.repeat(12)}né`
    const many = new Set(
      Array.from({ length: 30 }, (_, i) => dayNumber('2027-08-31') + 7 * (i % 15) + (i > 14 ? 2 : 0))
    )
    const text = write([section('SOIL 220', [meeting('TR', '13:00', '14:15')], { topic })], many)
    for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75)
    expect(text.replaceAll('\r\n ', '')).toContain('Peat\\; ponds\\, and \\\\ a title')
    const { events } = read(text)
    expect(events[0]!.description.split('\n')[1]).toBe(topic)
    const [only] = [meeting('TR', '13:00', '14:15')]
    expect(instants(events[0]!)).toEqual(expected(only!, many))
  })
  it('stay a calendar where there are none', () => {
    expect(read(write([])).events).toEqual([])
  })
})
