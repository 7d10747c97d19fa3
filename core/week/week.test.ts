import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dayNumber, type Weekday } from '../time'
import { meeting, section } from '../testing/build'
import { figuresOf, studyHours } from './figures'
import { clashOf, datesOf, type Meeting } from './meeting'
import { clashesWith, missingParts, optionsAmong, seatsAmong, seatsLeft, sectionsOf } from './option'
import { ribbonOf } from './ribbon'

const FIRST = { from: '2027-08-30', to: '2027-10-22' }
const SECOND = { from: '2027-10-25', to: '2027-12-17' }

// The values of this block are common practice.
describe('a clash', () => {
  it('needs an overlap: until 10:45 and from 10:45 is none', () => {
    expect(clashOf(meeting('MW', '9:30', '10:45'), meeting('MW', '10:45', '12:00'))).toBeUndefined()
  })
  it('overlaps 60 minutes on Monday only: Mon/Wed 4:20-5:45 pm and Mon 3:15-5:20 pm', () => {
    const found = clashOf(meeting('MW', '16:20', '17:45'), meeting('M', '15:15', '17:20'))
    expect(found).toMatchObject({ days: [1], minutes: 60 })
  })
  it('is there for one common day', () => {
    expect(clashOf(meeting('MWF', '9:00', '10:00'), meeting('RF', '9:30', '11:00'))).toMatchObject({
      days: [5]
    })
  })
  it('is not there between the two halves of a term', () => {
    expect(
      clashOf(meeting('TR', '9:30', '12:00', FIRST), meeting('TR', '9:30', '12:00', SECOND))
    ).toBeUndefined()
  })
  it('is not there when the only common date is a holiday', () => {
    const once = meeting('M', '9:00', '10:00', { from: '2027-09-06', to: '2027-09-06' })
    const weekly = meeting('M', '9:00', '10:00')
    expect(clashOf(weekly, once)).toMatchObject({ dates: 1, first: dayNumber('2027-09-06') })
    expect(clashOf(weekly, once, new Set([dayNumber('2027-09-06')]))).toBeUndefined()
  })
})

describe('a meeting', () => {
  it('of Mon/Wed 9:30-10:45 is 150 minutes a week (common practice)', () => {
    expect(figuresOf([section('ENVI 101', [meeting('MW', '9:30', '10:45')])]).classMinutes).toBe(150)
  })
  it('on Mondays loses one date to a holiday on the first Monday of September (common practice)', () => {
    const monday = meeting('M', '9:00', '10:00')
    const holiday = new Set([dayNumber('2027-09-06')])
    expect(datesOf(monday).length - datesOf(monday, holiday).length).toBe(1)
  })
})

describe('clashes against every date written out', () => {
  const one = fc.record({
    days: fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1, maxLength: 3 }),
    start: fc.integer({ min: 480, max: 600 }),
    length: fc.integer({ min: 1, max: 120 }),
    from: fc.integer({ min: 0, max: 20 }),
    span: fc.integer({ min: 0, max: 20 })
  })
  const first = dayNumber('2027-08-30')
  const build = (m: {
    days: number[]
    start: number
    length: number
    from: number
    span: number
  }): Meeting => ({
    ...meeting('M', '9:00', '10:00'),
    days: m.days as Weekday[],
    start: m.start,
    end: m.start + m.length,
    from: iso(first + m.from),
    to: iso(first + m.from + m.span)
  })
  const iso = (day: number) => new Date(day * 86_400_000).toISOString().slice(0, 10)

  it('agree in 1000 cases (seed 20270830)', () => {
    let clashing = 0
    fc.assert(
      fc.property(
        one,
        one,
        fc.uniqueArray(fc.integer({ min: 0, max: 40 }), { maxLength: 6 }),
        (x, y, off) => {
          const [a, b] = [build(x), build(y)]
          const holidays = new Set(off.map((n) => first + n))
          const common = datesOf(a, holidays).filter((date) => datesOf(b, holidays).includes(date))
          const overlap = Math.min(a.end, b.end) - Math.max(a.start, b.start)
          const expected = overlap > 0 && common.length > 0
          const found = clashOf(a, b, holidays)
          expect(found !== undefined).toBe(expected)
          if (found) {
            clashing++
            expect(found).toMatchObject({ minutes: overlap, dates: common.length, first: common[0] })
            expect(clashOf(b, a, holidays)).toEqual(found)
          }
        }
      ),
      { seed: 20270830, numRuns: 1000 }
    )
    expect(clashing).toBeGreaterThan(100)
  })
})

describe('options', () => {
  const lecture = section('SOIL 220', [meeting('TR', '13:00', '14:15')], { capacity: 24, taken: 4 })
  const labs = ['A', 'B'].map((n) =>
    section('SOIL 220', [meeting('R', '14:45', '17:15')], {
      kind: 'lab',
      parent: lecture.code,
      number: `01${n}`,
      capacity: 12,
      taken: n === 'A' ? 12 : 9
    })
  )
  const tutorial = section('SOIL 220', [], { kind: 'tutorial', parent: lecture.code })
  it('combine a lecture with one component of each kind', () => {
    const options = optionsAmong([...labs, lecture, tutorial])
    expect(options.map((o) => o.components.map((c) => c.kind))).toEqual([
      ['lab', 'tutorial'],
      ['lab', 'tutorial']
    ])
    expect(options[0]!.key).toBe([lecture, labs[0]!, tutorial].map((s) => s.code).join('+'))
  })
  it('have the seats of their scarcest section', () => {
    expect(optionsAmong([lecture, ...labs]).map(seatsLeft)).toEqual([0, 3])
    expect(seatsAmong([lecture, ...labs]).left).toBe(3)
  })
  it('are told from what lacks a kind of part that its section has on offer', () => {
    const lecture = section('SOIL 220', [])
    const lab = section('SOIL 220', [], { kind: 'lab', parent: lecture.code })
    const tutorial = section('SOIL 220', [], { kind: 'tutorial', parent: lecture.code })
    const gone = { ...section('SOIL 220', [], { kind: 'studio', parent: lecture.code }), cancelled: true }
    const offer = [lecture, lab, tutorial, gone]
    expect(missingParts([lecture, lab, tutorial], offer).size).toBe(0)
    expect(missingParts([lecture, tutorial], offer)).toEqual(new Map([['SOIL 220', ['lab']]]))
    expect(missingParts([lecture], offer).get(lecture.course)).toEqual(['lab', 'tutorial'])
    expect(missingParts([lecture], [lecture]).size).toBe(0)
  })
  it('do not exist for a cancelled section', () => {
    expect(optionsAmong([{ ...lecture, cancelled: true }, ...labs])).toEqual([])
  })
  it('clash with other courses, not with their own', () => {
    const option = optionsAmong([lecture, labs[0]!])[0]!
    const other = section('MATH 231', [meeting('R', '16:00', '17:00')])
    const found = clashesWith(
      { course: option.course, sections: sectionsOf(option) },
      [...labs, other],
      new Set()
    )
    expect(found.map((c) => [c.own.kind, c.with.course])).toEqual([['lab', 'MATH 231']])
  })
})

describe('the figures of a week', () => {
  it('count days: one course Mon/Wed, one Tue, one Thu make four (common practice)', () => {
    const week = [
      section('ENVI 101', [meeting('MW', '9:30', '10:45')]),
      section('ENVI 102', [meeting('T', '11:00', '12:00')]),
      section('ENVI 201', [meeting('R', '8:30', '9:30')])
    ]
    expect(figuresOf(week)).toMatchObject({
      days: 4,
      firstStart: 510,
      lastEnd: 720,
      between: 0,
      classMinutes: 270
    })
  })
  it('add the time between classes, overlaps once', () => {
    const week = [
      section('ENVI 101', [meeting('M', '9:00', '11:00')]),
      section('ENVI 102', [meeting('M', '10:00', '10:30')]),
      section('ENVI 201', [meeting('M', '12:15', '13:00')])
    ]
    expect(figuresOf(week).between).toBe(75)
  })
  it('are empty for nothing', () => {
    expect(figuresOf([section('ENVI 101')])).toEqual({
      days: 0,
      firstStart: null,
      lastEnd: null,
      between: 0,
      classMinutes: 0,
      fullest: 0,
      campusChanges: 0
    })
  })
})

describe('study hours', () => {
  it('are two a week for each credit (34 CFR 600.2)', () => {
    expect(
      studyHours([
        { credits: 3, half: 'full' },
        { credits: 4, half: 'full' }
      ])
    ).toBe(14)
  })
  it('double while a course runs in half a term, and halves do not add up', () => {
    expect(
      studyHours([
        { credits: 3, half: 'first' },
        { credits: 3, half: 'second' }
      ])
    ).toBe(12)
    expect(
      studyHours([
        { credits: 3, half: 'first' },
        { credits: 3, half: 'full' }
      ])
    ).toBe(18)
  })
})

describe('the ribbon', () => {
  it('shows Monday to Friday from 8 to 18, more only when something is there', () => {
    expect(ribbonOf([])).toMatchObject({ days: [1, 2, 3, 4, 5], from: 480, to: 1080, bars: [] })
    const evening = section('ENVI 101', [meeting('S', '18:30', '20:15')])
    expect(ribbonOf([evening])).toMatchObject({ days: [1, 2, 3, 4, 5, 6], to: 21 * 60 })
  })
  it('puts the first half above and the second below', () => {
    const first = section('ENVI 101', [meeting('T', '9:00', '10:00', FIRST)], { half: 'first' })
    const second = section('ENVI 102', [meeting('T', '9:00', '10:00', SECOND)], { half: 'second' })
    const full = section('ENVI 201', [meeting('W', '9:00', '10:00')])
    const shape = ribbonOf([first, second, full]).bars.map(({ top, height }) => [top, height])
    expect(shape).toEqual([
      [0, 0.5],
      [0.5, 0.5],
      [0, 1]
    ])
  })
  it('gives clashing bars a lane each', () => {
    const three = ['9:00', '9:30', '9:45'].map((start, i) =>
      section(`ENVI 10${i}`, [meeting('M', start, '11:00')])
    )
    const bars = ribbonOf(three).bars
    expect(bars.map((bar) => bar.height)).toEqual([1 / 3, 1 / 3, 1 / 3])
    expect(new Set(bars.map((bar) => bar.top)).size).toBe(3)
  })
  it('lists what has no hours and marks what happens once', () => {
    const trip = section('ENVI 101', [
      meeting('S', '9:00', '15:00', { from: '2027-09-18', to: '2027-09-18' })
    ])
    const online = section('LANG 140')
    const ribbon = ribbonOf([trip, online])
    expect(ribbon.unscheduled).toEqual([online])
    expect(ribbon.bars[0]!.once).toBe('2027-09-18')
  })
})
