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
  it.each(['2027-02-29', '2027-13-01', '27-01-01', 'today', ''])('refuses %s', (text) => {
    expect(() => dayNumber(text)).toThrow(RangeError)
  })
  it('reads times of day as minutes', () => {
    expect(minutes('00:00')).toBe(0)
    expect(minutes('9:30')).toBe(570)
    expect(() => minutes('24:00')).toThrow('HH:MM')
  })
})
