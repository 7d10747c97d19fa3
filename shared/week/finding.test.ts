import { describe, expect, it } from 'vitest'
import { courseCode } from '#core/ids'
import { meeting, section } from '../../core/testing/build'
import { sectionsNamedIn, WeekFinder, type FindCall } from './finding'

const hours = {
  early: meeting('MW', '9:30', '10:45'),
  noon: meeting('MW', '11:00', '12:15'),
  late: meeting('TR', '16:00', '17:15')
}
const envi = [hours.early, hours.noon].map((one) => section('ENVI 101', [one]))
const soil = [hours.early, hours.late].map((one) => section('SOIL 220', [one]))
const stat = [section('STAT 110', [hours.noon], { capacity: 20, taken: 20 }), section('STAT 110', [])]
const group = (...codes: string[]) => ({ courses: codes.map((code) => courseCode(code)), take: 1 })
const call = (over: Partial<FindCall['want']> = {}): FindCall => ({
  sections: [...envi, ...soil, ...stat],
  holidays: [],
  want: {
    groups: [group('ENVI 101'), group('SOIL 220'), group('STAT 110')],
    kept: [],
    wishes: [{ kind: 'fewestDays' }],
    fixed: [],
    travelHolds: false,
    ...over
  },
  travel: [],
  top: 50
})
const LATE = { name: 'Tuesday after 4', days: [2 as const], start: 960, end: 1200 }

describe('the finder of weeks', () => {
  it('counts what fits of all combinations, and what each thing that must hold takes away', () => {
    // By hand: of 2 x 2 x 2 the two early ones clash, and so do the two at noon.
    const { combinations, fit, without } = new WeekFinder(call({ kept: [LATE], seatsLeft: true })).count()
    expect([combinations, fit]).toEqual([4, 1])
    expect(without).toEqual([
      { must: { kind: 'kept', number: 0 }, fit: 3 },
      { must: { kind: 'seats' }, fit: 1 }
    ])
    expect(new WeekFinder(call()).count()).toMatchObject({ combinations: 8, fit: 4, without: [] })
  })
  it('counts combinations of a choice of courses', () => {
    const groups = [
      { courses: ['ENVI 101', 'SOIL 220', 'STAT 110'].map((code) => courseCode(code)), take: 2 }
    ]
    expect(new WeekFinder(call({ groups })).count().combinations).toBe(12)
  })
  it('keeps to what is fixed, and says what that costs', () => {
    const { fit, without } = new WeekFinder(call({ fixed: [envi[0]!.code] })).count()
    expect([fit, without]).toEqual([2, [{ must: { kind: 'fixed', section: envi[0]!.code }, fit: 4 }]])
  })
  it('ranks anew with other wishes as it would from the start', () => {
    const wishes = [{ kind: 'dayOff' as const, day: 1 as const }, { kind: 'seatsSafe' as const }]
    const moved = new WeekFinder(call())
    const before = moved.best()
    moved.wish(wishes)
    expect(moved.best()).toEqual(new WeekFinder(call({ wishes })).best())
    expect(before.proved).toBe(true)
    expect(before.weeks).toHaveLength(4)
  })
  it('names what cannot hold together, and what leaving a course out would give', () => {
    const morning = { name: 'Mornings', days: [1 as const, 3 as const], start: 480, end: 780 }
    const { fit, conflict, without } = new WeekFinder(call({ kept: [morning] })).count()
    expect([fit, conflict]).toEqual([0, { groups: [0], kept: [0] }])
    expect(without).toContainEqual({ must: { kind: 'group', number: 0 }, fit: 1 })
    expect(without).toContainEqual({ must: { kind: 'kept', number: 0 }, fit: 4 })
  })
  it('holds the way between campuses where it must', () => {
    const far = section('STAT 110', [meeting('MW', '12:20', '13:00', { campus: 'HARBOUR' })])
    const near = section('ENVI 101', [{ ...hours.noon, campus: 'HILL' }])
    const travel = [
      { from: 'HILL', to: 'HARBOUR', minutes: 25 },
      { from: 'HARBOUR', to: 'HILL', minutes: 25 }
    ]
    const asked = (travelHolds: boolean) =>
      new WeekFinder({
        ...call({ groups: [group('ENVI 101'), group('STAT 110')], travelHolds }),
        sections: [far, near],
        travel
      }).count()
    expect(asked(false).fit).toBe(1)
    expect(asked(true)).toMatchObject({
      fit: 0,
      without: expect.arrayContaining([{ must: { kind: 'travel' }, fit: 1 }]) as unknown
    })
  })
})

describe('the sections that a text names', () => {
  const [one, two] = envi as [(typeof envi)[0], (typeof envi)[0]]
  const known = [...envi, ...soil]
  it('are found in a list of codes, in any case, in the order of the sections', () => {
    expect(sectionsNamedIn(`${two.code.toLowerCase()}, ${one.code}`, known)).toEqual([one.code, two.code])
    expect(sectionsNamedIn(`X${one.code} ${one.code}9`, known)).toEqual([])
    expect(sectionsNamedIn('', known)).toEqual([])
  })
  it('are found in a table', () => {
    expect(sectionsNamedIn(`Course,Code\r\nENVI 101,"${one.code}"\r\n`, known)).toEqual([one.code])
  })
  it('are found in a calendar file, over a fold (RFC 5545, 3.1)', () => {
    const folded = `UID:${one.code.slice(0, 2)}\r\n ${one.code.slice(2)}-1@ridgeway\r\n`
    expect(sectionsNamedIn(folded, known)).toEqual([one.code])
  })
})
