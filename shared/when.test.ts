import { describe, expect, it } from 'vitest'
import { ago, campusDate, clockTime, countdown, deadlineText, hours, instantText, timeLeft } from './when'

const ZONE = 'America/New_York'
const OPENS = Date.parse('2027-04-12T11:00:00Z')

describe('campus time', () => {
  it('is written out with day, date and half of the day', () => {
    // A deadline at midnight is the end of the day before (common practice).
    expect(deadlineText(Date.parse('2027-09-10T04:00:00Z'), ZONE)).toBe('the end of Thu 9 Sep 2027')
    expect(deadlineText(Date.parse('2027-09-10T04:01:00Z'), ZONE)).toBe('Fri 10 Sep 2027, 12:01 am')
    expect(deadlineText(OPENS, ZONE)).toBe('Mon 12 Apr 2027, 7:00 am')
    expect(instantText(OPENS, ZONE)).toBe('Mon 12 Apr 2027, 7:00 am')
    expect(instantText(Date.parse('2027-09-01T04:30:00Z'), ZONE)).toBe('Wed 1 Sep 2027, 12:30 am')
  })
  it('follows daylight saving: the same instant of day is an hour apart in UTC', () => {
    expect(instantText(Date.parse('2027-01-12T12:00:00Z'), ZONE)).toContain('7:00 am')
    expect(instantText(Date.parse('2027-07-12T11:00:00Z'), ZONE)).toContain('7:00 am')
  })
  it('has the date of the campus, not of Greenwich', () => {
    expect(campusDate(Date.parse('2027-04-10T03:59:59Z'), ZONE)).toBe('2027-04-09')
    expect(campusDate(Date.parse('2027-04-10T04:00:00Z'), ZONE)).toBe('2027-04-10')
  })
})

describe('times of day', () => {
  it('say noon and midnight as people do', () => {
    expect([0, 720, 779, 1439].map(clockTime)).toEqual(['12:00 am', '12:00 pm', '12:59 pm', '11:59 pm'])
  })
  it('name am and pm where the hours alone could be misread', () => {
    expect(hours(570, 645)).toBe('9:30–10:45')
    expect(hours(1080, 1245)).toBe('6:00–8:45 pm')
    expect(hours(420, 480)).toBe('7:00–8:00 am')
  })
})

describe('time left', () => {
  it('is rounded down, so that nobody is told too much', () => {
    expect(timeLeft(3 * 86_400_000 + 4 * 3_600_000 + 59_000)).toBe('3 d 4 h')
    expect(timeLeft(59_999)).toBe('0 m')
    expect(timeLeft(-5)).toBe('0 m')
  })
  it('counts down to the second and reaches zero only at the end', () => {
    expect(countdown(3 * 86_400_000 + 4 * 3_600_000 + 12 * 60_000 + 36_000)).toBe('3 d 04:12:36')
    expect(countdown(1)).toBe('00:00:01')
    expect(countdown(0)).toBe('00:00:00')
  })
  it('tells how long ago by days of the campus', () => {
    const late = Date.parse('2027-04-09T03:30:00Z')
    expect(ago(late, Date.parse('2027-04-09T04:30:00Z'), ZONE)).toBe('yesterday')
    expect(ago(late, late, ZONE)).toBe('today')
    expect(ago(late, late + 5 * 86_400_000, ZONE)).toBe('5 days ago')
  })
})
