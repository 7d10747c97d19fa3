/** Larger degrees, filled, and judged by a general solver in another form of the question. */
import loadHighs from 'highs'
import type { Highs } from 'highs'
import { beforeAll, expect, it } from 'vitest'
import { fillQuestion } from '#core/fill'
import { checkRoute } from '#core/route'
import { DEGREE_TERMS, degreeOf, earliestOf, rereadOf } from '../../core/fill/testing/degrees'
import { LONG } from '../../tests/long'
import { filledOf } from './filling'
import { isHard } from './fillingFaults'
import { solverOf } from './solver'

let highs: Highs
beforeAll(async () => {
  highs = await loadHighs()
})

const CASES = LONG ? 300 : 6
it(
  `degrees of 24 to 40 courses finish as another form of the question says (${CASES}, from seed 1)`,
  { timeout: 3_000_000 },
  () => {
    const solve = solverOf(highs)
    const seen = { filled: 0, impossible: 0, unproved: 0, open: 0 }
    for (let seed = 1; seed <= CASES; seed++) {
      const degree = degreeOf(seed, 24 + (seed % 3) * 8)
      const reread = rereadOf(degree)
      const question = fillQuestion(reread([]).context, {
        summers: false,
        subjects: new Set(),
        level: 'undergraduate'
      })
      const { answer, proposal } = filledOf(question, [], reread, { solve })
      const best = earliestOf(highs, degree)
      if (best === 'open') {
        seen.open++
        continue
      }
      if (best === undefined) {
        expect({ seed, kind: answer.kind }).toEqual({ seed, kind: 'partly' })
        seen.impossible++
        continue
      }
      seen.filled++
      if (!proposal?.proved) seen.unproved++
      expect({ seed, finish: proposal?.finish?.code }).toEqual({ seed, finish: DEGREE_TERMS[best]!.code })
      const { context } = reread(proposal!.courses.map((one) => one.planned))
      expect({ seed, hard: checkRoute(context).filter(isHard) }).toEqual({ seed, hard: [] })
    }
    expect(seen.unproved + seen.open).toBeLessThanOrEqual(CASES / 20)
    expect(seen.filled).toBeGreaterThan(CASES / 3)
    expect(seen.impossible).toBeGreaterThanOrEqual(LONG ? CASES / 50 : 0)
  }
)
