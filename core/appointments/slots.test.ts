import { describe, expect, it } from 'vitest'
import { minutes, type Weekday } from '../time'
import { overlap, slotsOf, type OfferedTime } from './slots'

const weekly = (weekday: Weekday, start: string, end: string, over: Partial<OfferedTime> = {}): OfferedTime =>
  ({
    ...{ weekday, on: null, from: null, until: null, place: 'Garrow 214', length: 30 },
    ...{ start: minutes(start), end: minutes(end) },
    ...over
  }) as OfferedTime
const once = (on: string, start: string, end: string): OfferedTime => ({
  ...{ weekday: null, on, from: null, until: null, place: 'by video', length: 20 },
  ...{ start: minutes(start), end: minutes(end) }
})
const none = { away: [], holidays: new Set<string>(), taken: [] }
/** Friday 9 April 2027 at ten; the second Monday after is the 19th. */
const after = { date: '2027-04-09', minute: minutes('10:00') }
const told = (list: ReturnType<typeof slotsOf>) =>
  list.map(({ date, start }) => `${date} ${Math.floor(start / 60)}:${String(start % 60).padStart(2, '0')}`)

describe('slots of offered times', () => {
  it('are as many as fit from the beginning, on every such weekday to the last date', () => {
    const found = slotsOf([weekly(1, '09:00', '10:15')], { ...none, after, to: '2027-04-19' })
    expect(told(found)).toEqual(['2027-04-12 9:00', '2027-04-12 9:30', '2027-04-19 9:00', '2027-04-19 9:30'])
    expect(found[0]).toEqual({ date: '2027-04-12', start: 540, end: 570, place: 'Garrow 214' })
  })

  it('today are those that have not begun', () => {
    const found = slotsOf([weekly(5, '09:00', '11:00')], { ...none, after, to: '2027-04-09' })
    expect(told(found)).toEqual(['2027-04-09 10:30'])
  })

  it('are not there on days away, both ends included, nor on holidays; what is offered for a date is', () => {
    const offered = [
      weekly(1, '09:00', '09:30'),
      weekly(2, '09:00', '09:30'),
      once('2027-04-13', '15:00', '15:20')
    ]
    const holidays = new Set(['2027-04-13'])
    const away = [{ from: '2027-04-19', to: '2027-04-20' }]
    const found = slotsOf(offered, { ...none, holidays, away, after, to: '2027-04-26' })
    expect(told(found)).toEqual(['2027-04-12 9:00', '2027-04-13 15:00', '2027-04-26 9:00'])
  })

  it('are offered from a date to a date, both included', () => {
    const offered = [
      weekly(1, '09:00', '09:30', { from: '2027-04-19', until: '2027-04-26' } as Partial<OfferedTime>)
    ]
    const found = slotsOf(offered, { ...none, after, to: '2027-05-10' })
    expect(told(found)).toEqual(['2027-04-19 9:00', '2027-04-26 9:00'])
  })

  it('leave out what overlaps with what is taken, and keep what touches it', () => {
    const taken = [{ date: '2027-04-12', start: minutes('09:15'), end: minutes('10:00') }]
    const found = slotsOf([weekly(1, '08:30', '10:30')], { ...none, taken, after, to: '2027-04-12' })
    expect(told(found)).toEqual(['2027-04-12 8:30', '2027-04-12 10:00'])
  })

  it('that begin together are one; in order of time, whatever the order in which they are offered', () => {
    const offered = [
      weekly(1, '14:00', '14:30'),
      weekly(1, '09:00', '09:30'),
      once('2027-04-12', '09:00', '09:20')
    ]
    const found = slotsOf(offered, { ...none, after, to: '2027-04-12' })
    expect(told(found)).toEqual(['2027-04-12 9:00', '2027-04-12 14:00'])
    expect(found[0]!.place).toBe('Garrow 214')
  })

  it('of a time shorter than a slot there is none', () => {
    expect(slotsOf([weekly(1, '09:00', '09:20')], { ...none, after, to: '2027-04-12' })).toEqual([])
  })
})

describe('two parts of days', () => {
  const part = (date: string, start: number, end: number) => ({ date, start, end })
  it('overlap within a day only, and not where they touch', () => {
    expect(overlap(part('2027-04-12', 60, 120), part('2027-04-12', 119, 130))).toBe(true)
    expect(overlap(part('2027-04-12', 60, 120), part('2027-04-12', 120, 130))).toBe(false)
    expect(overlap(part('2027-04-12', 60, 120), part('2027-04-13', 60, 120))).toBe(false)
    expect(overlap(part('2027-04-12', 60, 120), part('2027-04-12', 70, 80))).toBe(true)
  })
})
