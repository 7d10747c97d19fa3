import { describe, expect, it } from 'vitest'
import { dayNumber, isoDate, minutes, weekdayOf } from './civil'

describe('civil dates', () => {
  it('counts days from 1970-01-01, a Thursday (ISO 8601 weekday 4)', () => {
    expect(dayNumber('1970-01-01')).toBe(0)
    expect(weekdayOf(0)).toBe(4)
  })
  it('knows the weekday of dates before and after', () => {
    // ISO 8601:2004 gives 1985-04-12 as day 5 (Friday) of week 15.
    expect(weekdayOf(dayNumber('1985-04-12'))).toBe(5)
    expect(weekdayOf(dayNumber('1969-12-28'))).toBe(7)
  })
  it('reads back every date it writes, over a leap day', () => {
    for (let day = dayNumber('2028-02-25'); day <= dayNumber('2028-03-03'); day++) {
      expect(dayNumber(isoDate(day))).toBe(day)
    }
    expect(isoDate(dayNumber('2028-02-28') + 1)).toBe('2028-02-29')
  })
  it('gives every day of four hundred years, and of the first and the last, the number that Date gives it', () => {
    // ECMA-262, time values: days of 86,400,000 ms in the proleptic Gregorian calendar.
    const first = Date.parse('1599-12-31T00:00:00Z') / 86_400_000
    const wrong: string[] = []
    for (let day = first; day < first + 4 * 36_525; day++)
      if (dayNumber(isoDate(day)) !== day) wrong.push(isoDate(day))
    expect(wrong).toEqual([])
    for (const date of ['0000-01-01', '0000-02-29', '0000-03-01', '9999-12-31'])
      expect(dayNumber(date)).toBe(Date.parse(`${date}T00:00:00Z`) / 86_400_000)
  })
  it.each([
    '1900-02-29',
    '2027-04-31',
    '2027-00-10',
    '2027-01-00',
    '2027/01/01',
    '2027-1-011',
    '2027-01-01T',
    '+027-01-01',
    '20a7-01-01'
  ])('refuses %s', (text) => {
    expect(() => dayNumber(text)).toThrow(RangeError)
  })
  it.each(['2027-02-29', '2027-13-01', '27-01-01', 'today', ''])('refuses %s', (text) => {
    expect(() => dayNumber(text)).toThrow(RangeError)
  })
  it('reads times of day as minutes', () => {
    expect(minutes('00:00')).toBe(0)
    expect(minutes('9:30')).toBe(570)
    expect(() => minutes('24:00')).toThrow('HH:MM')
  })
})
