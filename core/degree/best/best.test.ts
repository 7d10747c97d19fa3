import { describe, expect, it } from 'vitest'
import { greedy, passedOver } from './testing/greedy'
import { caseFrom, dice, type Case } from './testing/cases'
import { scoreOf } from './labels'
import { compareOpens, isLegal, NOWHERE, type Opens } from './problem'
import { solve, type Alternative } from './solve'

/** Every set of wants that may be chosen, in the program's own order; written without the search. */
function ways(alternative: Alternative): number[][] {
  let all: number[][] = [[...alternative.wants]]
  for (const { least, of } of alternative.choices) {
    const subsets = Array.from({ length: 2 ** of.length }, (_, bits) => of.filter((_, i) => bits & (1 << i)))
      .filter((some) => some.length === least)
      .sort((a, b) => of.indexOf(a[0]!) - of.indexOf(b[0]!))
    const inside = subsets.flatMap((some) =>
      some.reduce<number[][]>((sum, one) => sum.flatMap((x) => ways(one).map((y) => [...x, ...y])), [[]])
    )
    all = all.flatMap((one) => inside.map((more) => [...one, ...more]))
  }
  return all
}

interface Known {
  opens: Opens
  waste: number
  /** Which wants are asked for. */
  active: boolean[]
  /** Wants passed over, of the program's own order. */
  passed: number
}

/** Tries everything. Of equal readings that of the first branches, then the one that passes over least. */
function bruteForce({ problem, root }: Case): Known {
  let best: Known | undefined
  for (const chosen of ways(root)) {
    const active = problem.wants.map((_, w) => chosen.includes(w))
    const closed = problem.wants.length - chosen.length
    const place: number[] = []
    let bestHere: Known | undefined
    const go = (p: number): void => {
      if (p === problem.pieces.length) {
        if (!isLegal(problem, place)) return
        const { opens, waste } = scoreOf(problem, place)
        const here = opens.map((open) => open - closed) as unknown as Opens
        const passed = passedOver(problem, place, (w) => active[w]!)
        const compared = bestHere
          ? compareOpens(here, bestHere.opens) || waste - bestHere.waste || passed - bestHere.passed
          : -1
        if (compared < 0) bestHere = { opens: here, waste, active, passed }
        return
      }
      for (const w of [...problem.pieces[p]!.wants.filter((w) => active[w]), NOWHERE]) {
        place[p] = w
        go(p + 1)
      }
    }
    go(0)
    const compared = best ? compareOpens(bestHere!.opens, best.opens) || bestHere!.waste - best.waste : -1
    if (compared < 0) best = bestHere
  }
  return best!
}

describe('the best reading of small questions', () => {
  const small = Array.from({ length: 400 }, (_, n) => {
    const roll = dice(n + 5000)
    return caseFrom(n + 5000, {
      courses: 3 + Math.floor(roll() * 4),
      needs: 2 + Math.floor(roll() * 6),
      breadth: 0.5,
      taken: 0.8,
      caps: roll() < 0.3 ? 1 : 0,
      shares: roll() < 0.4,
      branches: roll() < 0.4
    })
  })
  it('is that of brute force, the order included (400 cases, seeds 5000 to 5399)', () => {
    let hard = 0
    for (const one of small) {
      const expected = bruteForce(one)
      const { opens, waste, place, active, ended, bound } = solve(one.problem, one.root)
      const passed = passedOver(one.problem, place, (w) => active[w]!)
      expect({ opens, waste, active, passed }).toEqual(expected)
      expect(isLegal(one.problem, place)).toBe(true)
      expect(ended).toBe('optimal')
      expect(bound).toEqual(opens)
      const greedily = one.root.choices.length ? undefined : scoreOf(one.problem, greedy(one))
      if (greedily && compareOpens(greedily.opens, opens) > 0) hard++
    }
    expect(hard).toBeGreaterThan(20)
  })
  it('keeps to its limit and says so', () => {
    const hard = caseFrom(11, {
      courses: 50,
      needs: 28,
      breadth: 0.15,
      taken: 0.8,
      caps: 0,
      shares: false,
      branches: false
    })
    const { ended, place, opens, bound } = solve(hard.problem, hard.root, 20)
    expect(ended).toBe('limit')
    expect(isLegal(hard.problem, place)).toBe(true)
    expect(compareOpens(bound, opens)).toBeLessThanOrEqual(0)
  })
})

describe('textbook matchings', () => {
  const match = (sets: number[][]) => {
    const courses = 1 + Math.max(...sets.flat())
    const wants = sets.map(() => ({ amount: 1, byCourse: true, subjects: 0, including: [] }))
    const pieces = Array.from({ length: courses }, (_, c) => ({
      course: c,
      weight: 3,
      status: 0,
      subject: 0,
      wants: sets.flatMap((set, w) => (set.includes(c) ? [w] : []))
    }))
    return solve({ wants, pieces, caps: [], shares: [] }, { wants: sets.map((_, w) => w), choices: [] })
  }
  it("finds distinct representatives where Hall's condition holds (Hall 1935)", () => {
    expect(
      match([
        [0, 1],
        [1, 2],
        [0, 2],
        [2, 3]
      ]).opens
    ).toEqual([0, 0, 0, 0, 0])
  })
  it('leaves one open where three sets hold two elements (Hall 1935)', () => {
    expect(
      match([
        [0, 1],
        [0, 1],
        [0, 1]
      ]).opens
    ).toEqual([1, 1, 1, 1, 1])
  })
})
