import { describe, expect, it } from 'vitest'
import { term } from '../../core/testing/build'
import type { TermView } from '#shared/catalog/responses'
import { moneyText } from '#shared/charges/texts'
import { dropSays } from './dropTexts'
import { outlookSays } from './outlookTexts'
import { termLineOf } from './termLine'

const at = (text: string) => Date.parse(text)
const autumn = {
  ...term('AU27'),
  addEndsAt: at('2027-09-11T00:00:00Z'),
  dropFreeEndsAt: at('2027-09-11T00:00:00Z'),
  dropEndsAt: at('2027-11-20T00:00:00Z'),
  arming: false,
  line: { serves: 'offer', closes: at('2027-09-09T00:00:00Z'), hours: 48, hoursNear: 12 },
  paymentDueOn: '2027-08-02'
} as TermView
const opens = at('2027-04-12T11:00:00Z')
const line = (now: number) => termLineOf(autumn, opens, now, 'UTC')

describe('the term line', () => {
  it('goes from the opening to the last drop', () => {
    expect(line(opens).now).toBe(0)
    expect(line(autumn.dropEndsAt).now).toBe(1)
    expect(line(opens - 1).now).toBeUndefined()
    expect(line(autumn.dropEndsAt + 1).now).toBeUndefined()
  })
  it('says of each lane what holds until when, with the end of a day for midnight', () => {
    const said = line(opens).lanes.map(({ title, bars }) => [title, ...bars.map((bar) => bar.until)])
    expect(said).toEqual([
      ['Add, exchange', 'the end of Fri 10 Sep 2027'],
      ['Drop', 'the end of Fri 10 Sep 2027', 'the end of Fri 19 Nov 2027'],
      ['Lines', 'the end of Wed 8 Sep 2027']
    ])
  })
  it('has bars that join and stay on the line', () => {
    for (const { bars } of line(opens).lanes)
      for (const [i, { from, to }] of bars.entries()) {
        expect([from >= 0, from < to, to <= 1]).toEqual([true, true, true])
        if (i) expect(from).toBe(bars[i - 1]!.to)
      }
  })
  it('leaves out what had ended before the opening', () => {
    const late = termLineOf(autumn, at('2027-10-01T00:00:00Z'), at('2027-10-02T00:00:00Z'), 'UTC')
    expect(late.lanes.map((lane) => lane.bars.map((bar) => bar.text))).toEqual([[], ['leaves a W'], []])
  })
  it('names the months between, each once', () => {
    expect(line(opens).months.map((month) => month.name)).toEqual([
      'May',
      'Jun',
      'Jul',
      'Aug',
      'Sep',
      'Oct',
      'Nov'
    ])
  })
})

describe('what is said before a drop', () => {
  const soil = { course: 'SOIL 220', credits: 4, mark: null, waiting: 0 } as const
  const says = (over: Partial<Parameters<typeof dropSays>[0]> = {}) =>
    dropSays({ courses: [soil], before: 14, level: 'undergraduate', ...over }).join(' ')
  it('tells the credits, and full time only where it ends', () => {
    expect(says()).toContain('Your registered credits go from 14 to 10.')
    expect(says()).toContain('you would be part-time')
    expect(says({ before: 16 })).not.toContain('part-time')
    expect(says({ before: 11 })).not.toContain('part-time')
    expect(says({ level: 'graduate' })).not.toContain('part-time')
  })
  it('tells what stays on the record, and of which course where not of all', () => {
    expect(says()).toContain('It leaves no trace on your record.')
    expect(says({ courses: [{ ...soil, mark: 'W' }] })).toContain('A W stays on your record.')
    const both = [soil, { course: 'MATH 231', credits: 3, mark: 'W', waiting: 0 } as const]
    expect(says({ courses: both })).toContain('A W stays on your record for MATH 231.')
  })
  it('tells to whom the seat goes', () => {
    expect(says({ courses: [{ ...soil, waiting: 3 }] })).toContain('3 wait for SOIL 220.')
    expect(says()).not.toContain('line')
  })
})

describe('what a run is expected to come to', () => {
  const now = { credits: 17, seats: 5, waits: 0, nothing: 0 }
  const says = (over: Partial<Parameters<typeof outlookSays>[0]> = {}) =>
    outlookSays({ now, later: now, scarce: [], fullTime: 12, ...over })
  it('is said in a sentence where nothing is scarce', () => {
    expect(says()).toEqual(['As seats are now, 5 of 5 lines end in a seat: 17 credits, full time.'])
    expect(says({ fullTime: undefined })).toEqual([
      'As seats are now, 5 of 5 lines end in a seat: 17 credits.'
    ])
  })
  it('does not count on what still stops every line', () => {
    expect(says({ stopped: true })[0]).toMatch(/^Once what stops you is settled, as seats are now, 5 of 5/)
  })
  it('names what has few seats left, and what holds without it', () => {
    const later = { credits: 10, seats: 3, waits: 0, nothing: 2 }
    expect(says({ later, scarce: ['SOIL 220', 'WRIT 215'] })[1]).toBe(
      'SOIL 220 and WRIT 215 have few seats left; if they are gone by then: 10 credits, below full time of 12.'
    )
    expect(says({ scarce: ['SOIL 220'] })[1]).toBe(
      'SOIL 220 has few seats left; if they are gone by then, a fallback holds: 17 credits, full time.'
    )
  })
})

describe('what a drop gives back', () => {
  const soil = { course: 'SOIL 220', credits: 4, mark: null, waiting: 0 } as const
  const says = (of: number, back: number) =>
    dropSays({ courses: [soil], before: 20, level: 'undergraduate', money: { of, back } })[2]
  it('is said with what it costs, and nothing where that is not known', () => {
    expect(says(8_500, 8_500)).toBe('85.00 less is charged.')
    expect(says(8_500, 4_250)).toBe('Of 85.00 that it costs, 42.50 is given back now.')
    expect(says(8_500, 0)).toBe('Of 85.00 that it costs, nothing is given back any more.')
    expect(says(0, 0)).toBe('What is charged does not become less.')
    expect(dropSays({ courses: [soil], before: 14, level: 'undergraduate' }).join()).not.toContain('charged')
  })
})

describe('an amount', () => {
  it('is written with two decimals and its thousands apart', () => {
    expect([0, 5, 486_000, -442_050, 123_456_789].map(moneyText)).toEqual([
      '0.00',
      '0.05',
      '4,860.00',
      '−4,420.50',
      '1,234,567.89'
    ])
  })
})
