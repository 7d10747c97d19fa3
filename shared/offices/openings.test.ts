import { describe, expect, it } from 'vitest'
import { expectedHour, fullestMinute, HOUR_MINUTES, runsText } from './openings'

const hour = (...first: number[]) => {
  const runs = Array.from({ length: HOUR_MINUTES }, (_, i) => first[i] ?? 0)
  return { isMeasured: true, runs, seats: runs.map((n) => n * 4) }
}

describe('the hour of an opening to come', () => {
  it('is nothing as long as none was measured with somebody in it', () => {
    expect(expectedHour([], 100)).toBeUndefined()
    expect(expectedHour([{ students: 0, hour: hour() }], 100)).toBeUndefined()
    expect(expectedHour([{ students: 40, hour: hour() }], 100)).toBeUndefined()
  })
  it('is as that of one measured, by the number of students', () => {
    const { runs, seats, isMeasured } = expectedHour([{ students: 50, hour: hour(20, 5, 0, 1) }], 100)!
    expect(isMeasured).toBe(false)
    expect(runs.slice(0, 5)).toEqual([40, 10, 0, 2, 0])
    expect(seats[0]).toBe(160)
    expect(runs).toHaveLength(HOUR_MINUTES)
  })
  it('weighs several by their students', () => {
    const measured = [
      { students: 90, hour: hour(9) },
      { students: 10, hour: hour(10) }
    ]
    expect(expectedHour(measured, 100)!.runs[0]).toBeCloseTo(19)
  })
  it('has a fullest minute, the first of several', () => {
    expect(fullestMinute(hour(1, 7, 7).runs)).toEqual({ minute: 1, runs: 7 })
    expect([runsText(0.42), runsText(9.96), runsText(130.4)]).toEqual(['0.4', '10', '130'])
  })
})
