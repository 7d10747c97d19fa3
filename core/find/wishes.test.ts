import { describe, expect, it } from 'vitest'
import { courseCode } from '../ids'
import { meeting, section } from '../testing/build'
import type { Meeting, Section } from '../week'
import { bestWeeks, findQuestion, weekOf, withWishes, type Want, type Wish } from '.'

const noHolidays: ReadonlySet<number> = new Set()
/** The one course that is there anyway: Monday and Wednesday, 9:30 to 10:45, on the hill. */
const anchor = section('ENVI 101', [meeting('MW', '9:30', '10:45', { campus: 'HILL' })], {
  mode: 'inPerson',
  instructors: ['Ada'],
  campus: 'HILL'
})
const choice = (name: string, meetings: Meeting[], over: Partial<Section> = {}) =>
  section('STAT 110', meetings, { number: name, campus: 'HILL', ...over })
const onHill = (days: string, start: string, end: string) => meeting(days, start, end, { campus: 'HILL' })

const want = (wishes: readonly Wish[], over: Partial<Want> = {}): Want => ({
  groups: ['ENVI 101', 'STAT 110'].map((code) => ({ courses: [courseCode(code)], take: 1 })),
  fixed: new Set(),
  kept: [],
  wishes,
  ...over
})
/** Numbers of the sections of STAT 110, the week that serves the wishes best first. */
function inOrder(choices: readonly Section[], wishes: readonly Wish[], over: Partial<Want> = {}): string[] {
  const question = findQuestion([anchor, ...choices], want(wishes, over), noHolidays)
  const { weeks, proved } = bestWeeks(question.problem, 50)
  expect(proved).toBe(true)
  return weeks.map(
    (week) => weekOf(question, week).find((option) => option.course === 'STAT 110')!.main.number
  )
}

/** What each wish prefers, worked out by hand; the worse one stands first, so that order alone does not do it. */
const CASES: { wish: Wish; worse: Section; better: Section; why: string; over?: Partial<Want> }[] = [
  {
    wish: { kind: 'fewestDays' },
    worse: choice('1', [onHill('TR', '11:00', '12:15')]),
    better: choice('2', [onHill('MW', '16:00', '17:15')]),
    why: 'two days instead of four'
  },
  {
    wish: { kind: 'dayOff', day: 5 },
    worse: choice('1', [onHill('F', '9:00', '11:30')]),
    better: choice('2', [onHill('R', '9:00', '11:30')]),
    why: 'nothing on Friday'
  },
  {
    wish: { kind: 'startsAfter', time: 9 * 60 },
    worse: choice('1', [onHill('TR', '8:00', '9:15')]),
    better: choice('2', [onHill('TR', '9:00', '10:15')]),
    why: 'nine is no earlier than nine'
  },
  {
    wish: { kind: 'endsBefore', time: 16 * 60 },
    worse: choice('1', [onHill('T', '15:00', '16:30')]),
    better: choice('2', [onHill('T', '14:30', '16:00')]),
    why: 'four is over by four'
  },
  {
    wish: { kind: 'fewestHoursBetween' },
    worse: choice('1', [onHill('MW', '13:00', '14:15')]),
    better: choice('2', [onHill('MW', '11:00', '12:15')]),
    why: 'a quarter of an hour between instead of two and a quarter'
  },
  {
    wish: { kind: 'lunchFree', from: 12 * 60, to: 13 * 60, minutes: 45 },
    worse: choice('1', [onHill('MW', '12:20', '13:35')]),
    better: choice('2', [onHill('MW', '12:45', '14:00')]),
    why: 'three quarters of an hour are left until a quarter to one'
  },
  {
    wish: { kind: 'evenDays' },
    worse: choice('1', [onHill('MW', '13:00', '14:15')]),
    better: choice('2', [onHill('TR', '13:00', '14:15')]),
    why: 'no day has more than one class'
  },
  {
    wish: { kind: 'oneCampusADay' },
    worse: choice('1', [meeting('MW', '13:00', '14:15', { campus: 'HARBOUR' })], { campus: 'HARBOUR' }),
    better: choice('2', [meeting('TR', '13:00', '14:15', { campus: 'HARBOUR' })], { campus: 'HARBOUR' }),
    why: 'the harbour has days of its own'
  },
  {
    wish: { kind: 'seatsSafe' },
    worse: choice('1', [], { capacity: 20, taken: 16 }),
    better: choice('2', [], { capacity: 20, taken: 15 }),
    why: 'five seats are no risk, four are'
  },
  {
    wish: { kind: 'mode', modes: ['online'] },
    worse: choice('1', [], { mode: 'mixed' }),
    better: choice('2', [], { mode: 'online' }),
    why: 'it is online'
  },
  {
    wish: { kind: 'instructors', names: ['Bo', 'Cy'] },
    worse: choice('1', [], { instructors: ['Di'] }),
    better: choice('2', [], { instructors: ['Di', 'Cy'] }),
    why: 'one of the two teaches it'
  },
  {
    wish: { kind: 'keptIfPossible' },
    worse: choice('1', [onHill('T', '16:00', '17:15')]),
    better: choice('2', [onHill('T', '14:00', '15:15')]),
    why: 'Tuesday after four stays free',
    over: { softly: [{ name: 'Tuesday after 4', days: [2], start: 16 * 60, end: 20 * 60 }] }
  }
]

describe('a wish', () => {
  it.each(CASES)('$wish.kind: $why', ({ wish, worse, better, over }) => {
    expect(inOrder([worse, better], [wish], over)).toEqual(['2', '1'])
    expect(inOrder([better, worse], [wish], over)).toEqual(['2', '1'])
  })
  it('together: more sections that a friend takes', () => {
    const [one, two] = [choice('1', []), choice('2', [])]
    expect(inOrder([one, two], [{ kind: 'together', sections: [two.code, anchor.code] }])).toEqual(['2', '1'])
    expect(inOrder([one, two], [{ kind: 'together', sections: [one.code] }])).toEqual(['1', '2'])
  })
})

describe('wishes in order', () => {
  const early = choice('early', [onHill('TR', '8:00', '9:15')], { capacity: 20, taken: 0 })
  const risky = choice('risky', [onHill('TR', '10:00', '11:15')], { capacity: 20, taken: 18 })
  const both = choice('both', [onHill('TR', '8:00', '9:15')], { capacity: 20, taken: 19 })
  const late: Wish = { kind: 'startsAfter', time: 9 * 60 }
  const safe: Wish = { kind: 'seatsSafe' }

  it('let a higher one always win, and the next decide between equals', () => {
    expect(inOrder([both, early, risky], [late, safe])).toEqual(['risky', 'early', 'both'])
    expect(inOrder([both, early, risky], [safe, late])).toEqual(['early', 'risky', 'both'])
  })
  it('rank the same anew as from the start', () => {
    const question = findQuestion([anchor, both, early, risky], want([late, safe]), noHolidays)
    const anew = withWishes(question, want([safe, late]), noHolidays)
    const fresh = findQuestion([anchor, both, early, risky], want([safe, late]), noHolidays)
    expect(bestWeeks(anew.problem, 50).weeks).toEqual(bestWeeks(fresh.problem, 50).weeks)
  })
  it('change nothing about what fits', () => {
    const all = [late, safe, ...CASES.map((one) => one.wish)]
    expect(inOrder([both, early, risky], all).sort()).toEqual(['both', 'early', 'risky'])
    expect(inOrder([both, early, risky], []).sort()).toEqual(['both', 'early', 'risky'])
  })
})
