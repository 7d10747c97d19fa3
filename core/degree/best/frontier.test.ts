import { describe, expect, it } from 'vitest'
import { alongFrontier } from './frontier'
import { solve } from './solve'
import { caseFrom, dice } from './testing/cases'

describe('the exact search', () => {
  it('reads, course by course, as the quick ways do where those prove their answer (300 cases, seeds 9000 to 9299)', () => {
    let quick = 0
    for (let seed = 9000; seed < 9300; seed++) {
      const roll = dice(seed)
      const courses = 8 + Math.floor(roll() * 16)
      const { problem, root } = caseFrom(seed, {
        courses,
        needs: 3 + Math.floor(roll() * courses * 0.6),
        breadth: 0.06,
        taken: 1,
        wide: 0.2,
        caps: roll() < 0.2 ? 1 : 0,
        shares: roll() < 0.2,
        branches: false
      })
      const { place, opens, waste, steps } = solve(problem, root)
      const exact = alongFrontier(problem, { steps: 0, most: 100_000 })
      expect({ seed, proved: exact.proved, ...exact.best }).toEqual({
        seed,
        proved: true,
        place,
        opens,
        waste
      })
      if (steps === 0) quick++
    }
    expect(quick).toBeGreaterThan(100)
  })
  it('finds nothing that comes up to more than there is', () => {
    const { problem } = caseFrom(3, {
      courses: 10,
      needs: 6,
      breadth: 0.1,
      taken: 0.6,
      caps: 0,
      shares: false,
      branches: false
    })
    const effort = { steps: 0, most: 100_000 }
    const { opens } = alongFrontier(problem, effort).best!
    expect(opens[0]).toBeGreaterThan(0)
    const more = { opens: [opens[0] - 1, 0, 0, 0] as const, waste: 0 }
    expect(alongFrontier(problem, effort, more)).toMatchObject({ best: undefined, proved: true })
  })
})
