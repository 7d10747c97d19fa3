import loadHighs from 'highs'
import { describe, expect, it } from 'vitest'
import { dice } from '../degree/best/testing/cases'
import { fill, fillMending } from './fill'
import { isLegal, NOT_TAKEN, worth, type FillCourse, type FillProblem } from './problem'
import { fillCase } from './testing/cases'
import { judgeFill } from './testing/judge'

const seeds = Array.from({ length: 300 }, (_, i) => 7000 + i)
function small(seed: number): FillProblem {
  const roll = dice(seed * 31)
  const demands = 2 + Math.floor(roll() * 6)
  return fillCase(seed, {
    terms: 3 + Math.floor(roll() * 4),
    demands,
    courses: demands * 2 + Math.floor(roll() * 6),
    chained: [0.2, 0.5, 0.7][Math.floor(roll() * 3)]!,
    room: 7 + Math.floor(roll() * 6)
  })
}

describe('filling', () => {
  it(
    'finishes as early as the HiGHS solver, with as few findings (300 cases, seeds 7000 to 7299)',
    { timeout: 240_000 },
    async () => {
      const highs = await loadHighs()
      let filled = 0
      let impossible = 0
      let late = 0
      for (const seed of seeds) {
        const problem = small(seed)
        const answer = fill(problem, { most: 1_000_000 })
        const judged = judgeFill(highs, problem)
        if (answer.kind === 'impossible') {
          expect({ seed, judged }).toEqual({ seed, judged: undefined })
          impossible++
          const only = {
            ...problem,
            demands: problem.demands.map((d, i) => (answer.demands.includes(i) ? d : { ...d, amount: 0 }))
          }
          expect({ seed, only: judgeFill(highs, only) }).toEqual({ seed, only: undefined })
          for (const dropped of answer.demands) expect(judgeFill(highs, only, dropped)).toBeDefined()
          continue
        }
        if (answer.kind !== 'filled') throw new Error(`seed ${seed} ended ${answer.kind}`)
        filled++
        const { best, proved, bound } = answer
        expect({ seed, proved, finish: best.finish, findings: best.findings.length }).toEqual({
          seed,
          proved: true,
          ...judged
        })
        expect(bound).toBe(best.finish)
        expect(isLegal(problem, best.term)).toBe(true)
        expect(isServed(problem, best.term)).toBe(true)
        if (best.finish > 1) late++
      }
      expect(filled).toBeGreaterThan(150)
      expect(impossible).toBeGreaterThan(30)
      expect(late).toBeGreaterThan(60)
    }
  )
})

/** Whether the courses taken can be shared out so that all demands are met; by trying everything. */
function isServed({ courses, demands }: FillProblem, term: readonly number[]): boolean {
  const layers = [...new Set(demands.map((demand) => demand.layer))]
  return layers.every((layer) => {
    const taken = courses.filter((_, c) => term[c] !== NOT_TAKEN)
    const lacks = demands.map((demand) => (demand.layer === layer ? demand.amount : 0))
    const go = (i: number): boolean => {
      if (lacks.every((left) => left <= 0)) return true
      const course = taken[i]
      if (!course) return false
      for (const d of course.demands) {
        if (lacks[d]! <= 0) continue
        const gives = worth(demands[d]!, course)
        lacks[d]! -= gives
        if (go(i + 1)) return true
        lacks[d]! += gives
      }
      return go(i + 1)
    }
    return go(0)
  })
}

const plain = (over: Partial<FillCourse> = {}): FillCourse => ({
  weight: 3,
  terms: 0b111111,
  rule: undefined,
  demands: [],
  cost: 0,
  placed: false,
  ...over
})
const after = (course: number) => ({ kind: 'course', course, same: false }) as const
const rooms = (n: number, room: number) =>
  Array.from({ length: n }, () => ({ room, standing: 0, soft: room, least: 0 }))

describe('a filling by hand', () => {
  it('takes what is liked among courses that would do as well, though not where others wait for it', () => {
    const courses = [
      plain({ demands: [0], cost: 3 }),
      plain({ demands: [0], cost: 1 }),
      plain({ demands: [1], cost: 2 }),
      plain({ demands: [1], cost: 0, weight: 4 }),
      plain({ demands: [2], cost: 1, rule: after(5) }),
      plain({ demands: [2], cost: 3 }),
      plain({ demands: [2], cost: 0, terms: 0 })
    ]
    const demands = [0, 1, 2].map(() => ({ amount: 1, byCourse: true, layer: 0 }))
    const answer = fill({ terms: rooms(3, 12), courses, demands, before: 0 })
    if (answer.kind !== 'filled') throw new Error(answer.kind)
    const taken = answer.best.term.flatMap((at, c) => (at === NOT_TAKEN ? [] : [c]))
    expect(taken).toContain(1)
    expect(taken).not.toContain(0)
    expect(taken).not.toContain(6)
    expect(isServed({ terms: [], courses, demands, before: 0 }, answer.best.term)).toBe(true)
  })
  it('takes one term for each link of a chain, the critical path (Kelley and Walker 1959)', () => {
    const courses = [0, 1, 2, 3].map((c) => plain({ demands: [c], rule: c ? after(c - 1) : undefined }))
    const demands = courses.map(() => ({ amount: 1, byCourse: true, layer: 0 }))
    expect(fill({ terms: rooms(6, 12), courses, demands, before: 0 })).toMatchObject({
      kind: 'filled',
      proved: true,
      best: { term: [0, 1, 2, 3], finish: 3 }
    })
  })
  it('shares courses out evenly where nothing forces them', () => {
    const courses = Array.from({ length: 6 }, (_, c) => plain({ demands: [c] }))
    const demands = courses.map(() => ({ amount: 1, byCourse: true, layer: 0 }))
    const answer = fill({ terms: rooms(2, 15), courses, demands, before: 0 })
    if (answer.kind !== 'filled') throw new Error(answer.kind)
    expect([0, 1].map((t) => answer.best.term.filter((at) => at === t).length)).toEqual([3, 3])
  })
  it('takes a course nobody asked for where another one needs it', () => {
    const courses = [plain(), plain({ demands: [0], rule: after(0) })]
    const demands = [{ amount: 1, byCourse: true, layer: 0 }]
    expect(fill({ terms: rooms(3, 6), courses, demands, before: 0 })).toMatchObject({
      best: { term: [0, 1] }
    })
  })
  it('leaves what is placed where it is', () => {
    const courses = [plain({ placed: true, terms: 0b100 }), plain({ demands: [0], rule: after(0) })]
    const demands = [{ amount: 1, byCourse: true, layer: 0 }]
    expect(fill({ terms: rooms(5, 6), courses, demands, before: 0 })).toMatchObject({
      best: { term: [2, 3] }
    })
  })
  it('gives a placed course what it needs before it, and leaves it unmet where nothing would do', () => {
    const demands = [{ amount: 1, byCourse: true, layer: 0 }]
    const route = (at: number) => [
      plain({ placed: true, terms: 1 << at, rule: after(1) }),
      plain({ demands: [0] })
    ]
    const terms = rooms(5, 6).map((one, t) => ({ ...one, room: t === 0 ? 0 : 6 }))
    expect(fillMending({ terms, courses: route(2), demands, before: 0 })).toMatchObject({
      best: { term: [2, 1] }
    })
    expect(fillMending({ terms, courses: route(1), demands, before: 0 })).toMatchObject({
      best: { term: [1, 1] }
    })
  })
  it('names the demands that cannot be met together, and no other', () => {
    const courses = [0, 1, 2, 3].map((c) => plain({ demands: [c], terms: c < 2 ? 0b1 : 0b10 }))
    const demands = courses.map(() => ({ amount: 1, byCourse: true, layer: 0 }))
    const terms = [{ room: 3, standing: 0, soft: 3, least: 0 }, ...rooms(1, 6)]
    expect(fill({ terms, courses, demands, before: 0 })).toMatchObject({
      kind: 'impossible',
      demands: [0, 1]
    })
  })
  it('says when its effort does not suffice, and lets itself be stopped', () => {
    const problem = fillCase(7137, { terms: 5, demands: 7, courses: 19, chained: 0.5, room: 8 })
    const answer = fill(problem, { most: 1 })
    if (answer.kind === 'filled') expect(answer.bound).toBeLessThanOrEqual(answer.best.finish)
    else expect(answer.kind).toBe('unknown')
    let told = 0
    fill(problem, { stopped: () => ++told > 0 })
    expect(told).toBeGreaterThan(0)
  })
})
