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
    const labs = ['a', 'b'].map((letter) =>
      choice(`2${letter}`, [], { kind: 'lab', parent: two.code, credits: 0 })
    )
    const question = findQuestion(
      [anchor, one, two, ...labs],
      want([{ kind: 'together', sections: [two.code, labs[1]!.code, anchor.code] }]),
      noHolidays
    )
    // A lab that the friend does not take counts by itself.
    expect(bestWeeks(question.problem, 9).weeks.map((week) => week.costs)).toEqual([[0], [1], [1]])
  })
})

describe('a weekday', () => {
  const FIRST = { from: '2027-08-30', to: '2027-10-22', campus: 'HILL' }
  const SECOND = { from: '2027-10-25', to: '2027-12-17', campus: 'HILL' }
  const costs = (sections: Section[], wishes: readonly Wish[]) => {
    const groups = sections.map(({ course }) => ({ courses: [course], take: 1 }))
    const question = findQuestion(sections, want(wishes, { groups }), noHolidays)
    return bestWeeks(question.problem, 1).weeks[0]!.costs
  }
  it('is what its worst date is: what the halves have does not add up, and nothing lies between them', () => {
    const halves = [
      section('ENVI 101', [meeting('M', '9:00', '10:00', FIRST)]),
      section('ENVI 102', [meeting('M', '13:00', '14:00', SECOND)])
    ]
    const wishes: Wish[] = [{ kind: 'fewestHoursBetween' }, { kind: 'evenDays' }, { kind: 'fewestDays' }]
    expect(costs(halves, wishes)).toEqual([0, 60, 1])
    const whole = section('ENVI 201', [meeting('M', '11:00', '12:00', { campus: 'HILL' })])
    expect(costs([...halves, whole], wishes)).toEqual([60, 120, 1])
  })
  it('is a day with classes for a single date', () => {
    const once = { from: '2027-10-09', to: '2027-10-09' }
    const trip = section('ENVI 101', [meeting('S', '9:00', '15:00', once)])
    expect(costs([trip], [{ kind: 'dayOff', day: 6 }, { kind: 'fewestDays' }])).toEqual([1, 1])
  })
})

describe('an option', () => {
  const lecture = section('ENVI 101', [meeting('MW', '9:00', '10:00')])
  const part = (kind: 'lab' | 'tutorial', days: string, start: string, end: string) =>
    section('ENVI 101', [meeting(days, start, end)], { kind, parent: lecture.code })
  const fits = (...sections: Section[]) => {
    const groups = [{ courses: [lecture.course], take: 1 }]
    return bestWeeks(findQuestion(sections, want([], { groups }), noHolidays).problem, 9).weeks.length
  }
  it('has no component at the hour of its lecture, or of another one', () => {
    const good = part('lab', 'R', '9:30', '11:00')
    expect(fits(lecture, part('lab', 'W', '9:30', '11:00'), good)).toBe(1)
    expect(fits(lecture, good, part('tutorial', 'R', '10:30', '11:30'))).toBe(0)
    expect(fits(lecture, good, part('tutorial', 'R', '11:00', '12:00'))).toBe(1)
  })
  it('of a block stands beside no fixed section that leaves the block', () => {
    const block = { block: 'Heron' }
    const inBlock = section('ENVI 102', [meeting('T', '9:00', '10:00')], block)
    const outside = section('ENVI 102', [meeting('R', '9:00', '10:00')])
    const own = section('ENVI 101', [meeting('F', '9:00', '10:00')], block)
    const groups = ['ENVI 101', 'ENVI 102'].map((code) => ({ courses: [courseCode(code)], take: 1 }))
    const asked = want([], { groups, fixed: new Set([lecture.code]) })
    const question = findQuestion([lecture, own, inBlock, outside], asked, noHolidays)
    const found = bestWeeks(question.problem, 9).weeks.map((week) =>
      weekOf(question, week).map((option) => option.main.code)
    )
    expect(found).toEqual([[lecture.code, outside.code]])
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
