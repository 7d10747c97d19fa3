import { describe, expect, it } from 'vitest'
import { alongFrontier } from './frontier'
import { NO_OPENS } from './problem'
import { caseFrom } from './testing/cases'

describe('the exact search', () => {
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
    const more = { opens: [opens[0] - 1, 0, 0, 0, 0] as const, unmet: NO_OPENS, waste: 0 }
    expect(alongFrontier(problem, effort, more)).toMatchObject({ best: undefined, proved: true })
  })
})
