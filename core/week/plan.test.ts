import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dayNumber, isoDate, weekdayOf } from '../time'
import { meeting, section } from '../testing/build'
import { classesBetween, weeksOfTerm, weekToOpen } from './dated'
import { loadByWeek, mondayOf } from './figures'
import { datesOf } from './meeting'
import { clashesWith, keptForOthers, optionsAmong, sectionsOf, type Option, type Section } from './option'
import { repairOf } from './repair'
import { ribbonOf } from './ribbon'
import { asPicked, changesSince } from './since'
import { shortWays } from './travel'

const NONE = new Set<number>()
const TERM = { start: '2027-08-30', end: '2027-12-17' }
const FIRST = { from: '2027-08-30', to: '2027-10-22' }
const SECOND = { from: '2027-10-25', to: '2027-12-17' }
const only = (one: Section): Option => optionsAmong([one])[0]!

describe('a repair', () => {
  const lecture = section('SOIL 220', [meeting('TR', '13:00', '14:15')], { number: '01' })
  const labs = ['A', 'B', 'C'].map((letter, i) =>
    section(
      'SOIL 220',
      [meeting(['R', 'R', 'F'][i]!, ['14:45', '15:00', '9:00'][i]!, ['17:15', '17:30', '11:30'][i]!)],
      {
        kind: 'lab',
        parent: lecture.code,
        number: `01${letter}`
      }
    )
  )
  const other = section('SOIL 220', [meeting('MW', '9:30', '10:45')], { number: '02' })
  const soil = optionsAmong([lecture, ...labs, other])
  const wanted = only(section('ENDA 325', [meeting('TR', '15:50', '17:05')]))
  const ask = (over: Partial<Parameters<typeof repairOf>[0]> = {}) =>
    repairOf({ wanted, picked: [soil[0]!], fixed: [], others: () => soil, holidays: NONE, ...over })

  it('moves only the lab that is in the way, and keeps its lecture', () => {
    const moves = ask()!.moves
    expect(moves).toHaveLength(1)
    expect(moves[0]!.to.main).toBe(lecture)
    expect(moves[0]!.to.components.map((one) => one.number)).toEqual(['01C'])
  })
  it('rather changes more than into a full section', () => {
    const full = optionsAmong([lecture, ...labs.map((one) => ({ ...one, taken: one.capacity })), other])
    const moves = ask({ picked: [full[0]!], others: () => full })!.moves
    expect(moves[0]!.to.main.number).toBe('02')
  })
  it('is none where a fixed section is in the way, or nothing else is left', () => {
    expect(ask({ fixed: [section('MATH 231', [meeting('T', '16:00', '17:00')])] })).toBeUndefined()
    expect(ask({ others: () => soil.slice(0, 2) })).toBeUndefined()
    expect(ask({ picked: [] })).toBeUndefined()
  })
  it('leaves no clash, moves only what clashes, and misses no single move (400 weeks)', () => {
    const hour = fc.integer({ min: 16, max: 26 }).map((half) => half * 30)
    const days = fc.constantFrom('M', 'T', 'MW', 'TR', 'MWF')
    const one = fc.tuple(days, hour)
    let found = 0
    let none = 0
    fc.assert(
      fc.property(
        fc.array(fc.array(one, { minLength: 1, maxLength: 4 }), { minLength: 2, maxLength: 4 }),
        one,
        (courses, at) => {
          const make = (course: string, [letters, start]: [string, number]) =>
            only(section(course, [{ ...meeting(letters, '8:00', '9:00'), start, end: start + 75 }]))
          const all = courses.map((list, c) => list.map((hours) => make(`TEST ${101 + c}`, hours)))
          const picked = all.map((list) => list[0]!)
          const want = make('ENVI 101', at)
          const clash = (a: Option, b: Option) =>
            clashesWith({ course: a.course, sections: sectionsOf(a) }, sectionsOf(b), NONE).length > 0
          const repair = repairOf({
            wanted: want,
            picked,
            fixed: [],
            others: (course) => all.flat().filter((option) => option.course === course),
            holidays: NONE
          })
          const moving = picked.filter((option) => clash(option, want))
          if (!repair) {
            none++
            // Where one is in the way, no option of its course stands beside everything.
            if (moving.length === 1) {
              const rest = picked.filter((option) => option !== moving[0])
              const others = all.flat().filter((option) => option.course === moving[0]!.course)
              expect(
                others.some((option) => !clash(option, want) && rest.every((r) => !clash(option, r)))
              ).toBe(false)
            }
            return
          }
          found++
          expect(repair.moves.map((move) => move.from.course).sort()).toEqual(
            moving.map((option) => option.course).sort()
          )
          const after = picked.map(
            (option) => repair.moves.find((move) => move.from === option)?.to ?? option
          )
          expect(after.some((option) => clash(option, want))).toBe(false)
          for (const { to } of repair.moves)
            expect(after.filter((option) => option !== to).some((option) => clash(to, option))).toBe(false)
        }
      ),
      { numRuns: 400, seed: 20270409 }
    )
    expect(found).toBeGreaterThan(30)
    expect(none).toBeGreaterThan(30)
  })
})

describe('ways between campuses', () => {
  const travel = (from: string, to: string) => (from === to ? undefined : 25)
  const at = (course: string, letters: string, start: string, end: string, campus: string, over = {}) =>
    section(course, [meeting(letters, start, end, { campus, ...over })], { campus })
  it('are too short from 24 minutes down, and long enough at 25', () => {
    const first = at('ENVI 101', 'MW', '9:00', '10:00', 'HILL')
    const late = at('ENVI 102', 'W', '10:25', '11:00', 'HARBOUR')
    const early = at('ENVI 201', 'W', '10:20', '11:00', 'HARBOUR')
    expect(shortWays([first, late], travel, NONE)).toEqual([])
    expect(shortWays([first, early], travel, NONE)).toMatchObject([
      { day: 3, from: first, to: early, leave: 600, arrive: 620, takes: 25 }
    ])
  })
  it('do not matter on one campus, online, in different halves or on a day that is free', () => {
    const first = at('ENVI 101', 'M', '9:00', '10:00', 'HILL', FIRST)
    expect(shortWays([first, at('ENVI 102', 'M', '10:05', '11:00', 'HILL')], travel, NONE)).toEqual([])
    expect(
      shortWays([first, at('ENVI 102', 'M', '10:05', '11:00', 'HARBOUR', SECOND)], travel, NONE)
    ).toEqual([])
    const online = { ...at('ENVI 102', 'M', '10:05', '11:00', 'ONLINE'), mode: 'onlineHours' as const }
    expect(shortWays([first, online], travel, NONE)).toEqual([])
    const once = at('ENVI 102', 'M', '10:05', '11:00', 'HARBOUR', { from: '2027-09-06', to: '2027-09-06' })
    expect(shortWays([first, once], travel, NONE)).toHaveLength(1)
    expect(shortWays([first, once], travel, new Set([dayNumber('2027-09-06')]))).toEqual([])
  })
})

describe('a section since it was picked', () => {
  const then = section('ENVI 101', [meeting('MW', '9:30', '10:45')], { capacity: 10, taken: 9 })
  it('is as it was, has moved, filled, or is cancelled', () => {
    const picked = asPicked(then)
    expect(changesSince(then, picked)).toEqual([])
    expect(changesSince({ ...then, taken: 10 }, picked)).toEqual(['filled'])
    expect(changesSince({ ...then, taken: 10, meetings: [meeting('MW', '9:30', '11:00')] }, picked)).toEqual([
      'moved',
      'filled'
    ])
    expect(changesSince({ ...then, cancelled: true, taken: 10 }, picked)).toEqual(['cancelled'])
  })
  it('has not moved by another room, nor filled when it was full already', () => {
    const full = { ...then, taken: 10 }
    expect(changesSince(full, asPicked(full))).toEqual([])
    expect(
      changesSince({ ...then, meetings: [{ ...then.meetings[0]!, room: 'Fern 2' }] }, asPicked(then))
    ).toEqual([])
    expect(changesSince({ ...then, taken: 10 }, null)).toEqual([])
  })
})

describe('what each week asks', () => {
  const run = ({ half }: Section) =>
    half === 'first'
      ? { start: FIRST.from, end: FIRST.to }
      : half === 'second'
        ? { start: SECOND.from, end: SECOND.to }
        : TERM
  const term = { ...TERM, holidays: new Set([dayNumber('2027-09-06')]) }
  it('is two hours of study for each credit, and four while a course runs in half the term (34 CFR 600.2)', () => {
    const full = section('ENVI 101', [meeting('MW', '9:30', '10:45')])
    const half = section('ENVI 102', [meeting('TR', '9:30', '12:00', FIRST)], { half: 'first' })
    const weeks = loadByWeek([full, half], term, run)
    expect(weeks).toHaveLength(16)
    expect(weeks.map((one) => one.studyHours)).toEqual([...Array(8).fill(18), ...Array(8).fill(6)])
  })
  it('has class on the real dates only: a Monday class meets one date fewer with Labor Day (common practice)', () => {
    const weeks = loadByWeek([section('ENVI 101', [meeting('MW', '9:30', '10:45')])], term, run)
    expect(weeks[0]!.classMinutes).toBe(150)
    expect(weeks[1]!.classMinutes).toBe(75)
    expect(weeks.reduce((sum, one) => sum + one.classMinutes, 0)).toBe(31 * 75)
  })
  it('adds up to as much study over the term, whatever part of it a course runs in', () => {
    for (const half of ['full', 'first', 'second'] as const) {
      const sum = loadByWeek([section('ENVI 101', [], { half })], term, run)
      expect(sum.reduce((total, one) => total + one.studyHours, 0)).toBeCloseTo(2 * 3 * 16)
    }
  })
})

describe('real weeks', () => {
  it('start on Mondays and cover the term', () => {
    const weeks = weeksOfTerm(TERM)
    expect(weeks.map(weekdayOf).every((day) => day === 1)).toBe(true)
    expect(isoDate(weeks[0]!)).toBe('2027-08-30')
    expect(isoDate(weeks.at(-1)!)).toBe('2027-12-13')
    expect(mondayOf(dayNumber('2027-09-05'))).toBe(dayNumber('2027-08-30'))
  })
  it('open on this week, before the term on its first full one, after it on the last', () => {
    const open = (today: string, start = '2027-09-02') =>
      isoDate(weekToOpen({ start, end: '2027-12-17' }, dayNumber(today)))
    expect(open('2027-04-09')).toBe('2027-09-06')
    expect(open('2027-04-09', '2027-08-30')).toBe('2027-08-30')
    expect(open('2027-09-03')).toBe('2027-08-30')
    expect(open('2027-11-11')).toBe('2027-11-08')
    expect(open('2028-02-01')).toBe('2027-12-13')
  })
  it('hold every date of every meeting once, in order', () => {
    const holidays = new Set([dayNumber('2027-11-25')])
    const sections = [
      section('ENVI 101', [meeting('MWF', '10:00', '10:50')]),
      section('ENVI 102', [meeting('TR', '9:30', '10:45', SECOND)])
    ]
    const all = weeksOfTerm(TERM).flatMap((monday) => classesBetween(sections, monday, monday + 6, holidays))
    const expected = sections.flatMap((one) => one.meetings.flatMap((m) => datesOf(m, holidays)))
    expect(all).toHaveLength(expected.length)
    expect(all.map((one) => one.day).sort()).toEqual(expected.sort())
    const order = all.map((one) => one.day * 1440 + one.meeting.start)
    expect(order).toEqual([...order].sort((a, b) => a - b))
  })
})

describe('seats kept for others', () => {
  const reserved = [
    { program: 'ENVD', block: null, left: 5 },
    { program: null, block: 'Heron', left: 3 }
  ]
  it('are those of programs and blocks the student is not in', () => {
    expect(keptForOthers({ reserved }, { programs: ['ENVD'], block: null })).toBe(3)
    expect(keptForOthers({ reserved }, { programs: ['GEOF'], block: 'Heron' })).toBe(5)
    expect(keptForOthers({ reserved }, { programs: ['ENVD', 'STAM'], block: 'Heron' })).toBe(0)
  })
})

describe('lanes of the ribbon', () => {
  const scale = { from: 480, to: 1080, term: TERM }
  it('put what has dates of its own into the half it falls into', () => {
    const early = section(
      'ENVI 101',
      [meeting('T', '9:00', '10:00', { from: '2027-09-07', to: '2027-10-08' })],
      { half: 'other' }
    )
    const late = section(
      'ENVI 102',
      [meeting('T', '9:00', '10:00', { from: '2027-11-02', to: '2027-12-07' })],
      { half: 'other' }
    )
    const across = section(
      'ENVI 201',
      [meeting('W', '9:00', '10:00', { from: '2027-10-01', to: '2027-11-30' })],
      { half: 'other' }
    )
    const shape = ribbonOf([early, late, across], scale).bars.map(({ top, height }) => [top, height])
    expect(shape).toEqual([
      [0, 0.5],
      [0.5, 0.5],
      [0, 1]
    ])
  })
  it('do not let a single date take the room of a weekly class, and count how many a day needs', () => {
    const weekly = section('ENVI 101', [meeting('F', '9:00', '11:00', SECOND)], { half: 'second' })
    const once = section('ENVI 102', [
      meeting('F', '9:00', '11:00', { from: '2027-09-24', to: '2027-09-24' })
    ])
    const ribbon = ribbonOf([weekly, once], scale)
    expect(ribbon.bars.map((bar) => bar.top).sort()).toEqual([0, 0.5])
    const five = Array.from({ length: 5 }, (_, i) => section(`TEST 10${i}`, [meeting('M', '9:00', '10:00')]))
    expect(ribbonOf(five, scale).lanes.get(1)).toBe(5)
    expect(ribbonOf(five, scale).lanes.get(2)).toBe(1)
  })
})
