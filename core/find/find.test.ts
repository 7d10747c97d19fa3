import loadHighs from 'highs'
import { describe, expect, it } from 'vitest'
import { LONG } from '../../tests/long'
import { courseCode } from '../ids'
import { meeting, section } from '../testing/build'
import { optionsAmong } from '../week'
import { conflictOf, reliefs } from './conflict'
import { countWeeks } from './count'
import { compareCosts } from './problem'
import { findQuestion, weekOf, type Want } from './question'
import { bestWeeks } from './search'
import { judgeWeeks } from './testing/judge'
import { everyWeek, termCase } from './testing/terms'

const TOP = 5
const TERMS = LONG ? 2000 : 50
/** Whether nothing fits, and what is in conflict. */
const CONFLICTS = LONG ? 1000 : 50
/** Of six courses, put to a solver. */
const LARGER = LONG ? 300 : 15

describe('finding weeks', () => {
  it(
    `counts and ranks as trying every combination does, dates and minutes written out (${TERMS} terms, from seed 1)`,
    { timeout: 120_000 },
    () => {
      let [none, several] = [0, 0]
      for (let seed = 1; seed <= TERMS; seed++) {
        const term = termCase(seed, {
          courses: 2 + (seed % 3),
          options: 3 + (seed % 2),
          hours: [4, 6, 9][seed % 3]!,
          kept: seed % 4
        })
        const every = everyWeek(term).sort((a, b) => compareCosts(a.costs, b.costs))
        const question = findQuestion(term.sections, term.want, term.holidays)
        const { weeks, proved } = bestWeeks(question.problem, TOP)
        expect({ seed, proved, n: countWeeks(question.problem) }).toEqual({
          seed,
          proved: true,
          n: every.length
        })
        expect({ seed, costs: weeks.map((week) => week.costs) }).toEqual({
          seed,
          costs: every.slice(0, TOP).map((week) => week.costs)
        })
        const keys = new Map(every.map((week) => [week.key, week.costs]))
        for (const week of weeks) {
          const key = weekOf(question, week)
            .map((option) => option.key.split('+').sort().join('+'))
            .sort()
            .join(' ')
          expect({ seed, costs: keys.get(key) }).toEqual({ seed, costs: week.costs })
        }
        if (!every.length) none++
        if (every.length > TOP) several++
      }
      expect(none).toBeGreaterThan(TERMS / 10)
      expect(several).toBeGreaterThan(TERMS / 5)
    }
  )
  it(
    `ranks as the HiGHS solver does, where that can be asked (${LARGER} terms of six courses, from seed 5000)`,
    { timeout: 240_000 },
    async () => {
      const highs = await loadHighs()
      let [found, none] = [0, 0]
      for (let seed = 5000; seed < 5000 + LARGER; seed++) {
        const term = termCase(seed, { courses: 6, options: 6, hours: [5, 6, 8][seed % 3]!, kept: 2 })
        const wishes: Want['wishes'] = [
          seed % 2 ? { kind: 'fewestDays' } : { kind: 'dayOff', day: 5 },
          { kind: 'seatsSafe' },
          { kind: 'mode', modes: ['online'] }
        ]
        const { problem } = findQuestion(term.sections, { ...term.want, wishes }, term.holidays)
        const { weeks, proved } = bestWeeks(problem, 1)
        const judged = judgeWeeks(highs, problem)
        expect({ seed, proved, costs: weeks[0]?.costs }).toEqual({ seed, proved: true, costs: judged })
        if (judged) found++
        else none++
      }
      expect(found).toBeGreaterThan(LARGER / 3)
      expect(none).toBeGreaterThan(LARGER / 20)
    }
  )
  it(`names what cannot hold together: a week without it does not fit, and without any one of it does (${CONFLICTS} terms)`, () => {
    let conflicts = 0
    for (let seed = 9000; seed < 9000 + CONFLICTS; seed++) {
      const term = termCase(seed, { courses: 4, options: 2, hours: 3, kept: 3 })
      const { problem } = findQuestion(term.sections, term.want, term.holidays)
      const conflict = conflictOf(problem)
      expect({ seed, none: countWeeks(problem) === 0 }).toEqual({ seed, none: conflict !== undefined })
      if (!conflict) continue
      conflicts++
      const countWith = (groups: number[], kept: number[]) =>
        countWeeks({
          ...problem,
          groups: problem.groups.map((group, g) => (groups.includes(g) ? group : { ...group, take: 0 })),
          kept: problem.kept.map((options, k) => (kept.includes(k) ? options : []))
        })
      expect({ seed, n: countWith(conflict.groups, conflict.kept) }).toEqual({ seed, n: 0 })
      for (const g of conflict.groups)
        expect(
          countWith(
            conflict.groups.filter((one) => one !== g),
            conflict.kept
          )
        ).toBeGreaterThan(0)
      for (const k of conflict.kept)
        expect(
          countWith(
            conflict.groups,
            conflict.kept.filter((one) => one !== k)
          )
        ).toBeGreaterThan(0)
    }
    expect(conflicts).toBeGreaterThan(CONFLICTS / 10)
  })
})

describe('a week', () => {
  const want = (over: Partial<Want> = {}): Want => ({
    groups: [],
    fixed: new Set(),
    kept: [],
    wishes: [],
    ...over
  })
  const group = (take: number, ...codes: string[]) => ({
    take,
    courses: codes.map((code) => courseCode(code))
  })
  const morning = meeting('MW', '9:30', '10:45')
  const noon = meeting('MW', '11:00', '12:15')
  const late = meeting('TR', '16:00', '17:15')

  it('takes as many of a group as are asked for', () => {
    const sections = [
      section('ENVI 101', [morning]),
      section('SOIL 220', [noon]),
      section('STAT 110', [late])
    ]
    const of = (take: number) =>
      countWeeks(
        findQuestion(sections, want({ groups: [group(take, 'ENVI 101', 'SOIL 220', 'STAT 110')] }), new Set())
          .problem
      )
    expect([1, 2, 3].map(of)).toEqual([3, 3, 1])
  })
  it('keeps to what is fixed, a lab included, though an office registers it', () => {
    const main = section('SOIL 220', [morning], { officeOnly: true })
    const labs = ['A', 'B'].map((letter) =>
      section('SOIL 220', [late], { parent: main.code, kind: 'lab', number: `01${letter}` })
    )
    const groups = [group(1, 'SOIL 220')]
    const count = (fixed: string[]) =>
      countWeeks(findQuestion([main, ...labs], want({ groups, fixed: new Set(fixed) }), new Set()).problem)
    expect(optionsAmong([main, ...labs])).toHaveLength(2)
    expect(count([])).toBe(0)
    expect(count([main.code])).toBe(2)
    expect(count([labs[0]!.code])).toBe(1)
  })
  it('says what letting go of one thing gives, the most first', () => {
    const sections = [
      section('ENVI 101', [morning]),
      section('SOIL 220', [morning]),
      ...[1, 2, 3].map(() => section('STAT 110', [late]))
    ]
    const kept = [{ name: 'Tuesday after 4', days: [2 as const], start: 16 * 60, end: 20 * 60 }]
    const groups = [group(1, 'ENVI 101'), group(1, 'STAT 110')]
    const { problem } = findQuestion(sections, want({ groups, kept }), new Set())
    expect(conflictOf(problem)).toEqual({ groups: [1], kept: [0] })
    expect(reliefs(problem)).toEqual([
      { of: { kind: 'kept', number: 0 }, weeks: 3 },
      { of: { kind: 'group', number: 1 }, weeks: 1 }
    ])
  })
  it('is not called the best where the search was stopped', () => {
    const sections = Array.from({ length: 6 }, (_, c) => [
      section(`TEST ${101 + c}`, []),
      section(`TEST ${101 + c}`, [])
    ])
    const groups = sections.map(([one]) => group(1, one!.course))
    const { problem } = findQuestion(sections.flat(), want({ groups }), new Set())
    expect(bestWeeks(problem, 50, { most: 5 }).proved).toBe(false)
    expect(bestWeeks(problem, 50).weeks).toHaveLength(50)
    expect(countWeeks(problem)).toBe(64)
    expect(countWeeks(problem, 0)).toBeUndefined()
    expect(() => bestWeeks(problem, 0)).toThrow(RangeError)
  })
})
