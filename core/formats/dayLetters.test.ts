import { describe, expect, it } from 'vitest'
import { formatDayLetters, parseDayLetters } from './dayLetters'

// Common practice: R is Thursday, U is Sunday.
describe('day letters', () => {
  it('reads TR as Tuesday and Thursday', () => expect(parseDayLetters('TR')).toEqual([2, 4]))
  it('reads MWF as three days', () => expect(parseDayLetters('mwf')).toEqual([1, 3, 5]))
  it('reads the whole week', () => expect(parseDayLetters('MTWRFSU')).toEqual([1, 2, 3, 4, 5, 6, 7]))
  it('puts days in the order of the week', () => expect(parseDayLetters('FM')).toEqual([1, 5]))
  it.each(['', 'TH', 'MM', 'X'])('does not guess at "%s"', (text) => {
    expect(parseDayLetters(text)).toBeUndefined()
  })
  it('writes letters back', () => expect(formatDayLetters([4, 2])).toBe('TR'))
})
