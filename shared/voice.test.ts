import { describe, expect, it } from 'vitest'
import { REFUSALS } from './testing/refusals'
import { aboutThem } from './voice'
import { refusalText } from '#shared/registration/texts'

describe('a sentence written to the student', () => {
  it.each([
    ['Your advisor has not signed off this term yet.', 'Their advisor has not signed off this term yet.'],
    ['No opening of this term is for you.', 'No opening of this term is for them.'],
    [
      'An office placed you in it; only the office can move you.',
      'An office placed them in it; only the office can move them.'
    ],
    ['You hold your seat until it is yours.', 'They hold their seat until it is theirs.'],
    ['Stops you from registering.', 'Stops them from registering.'],
    ['You asked Orla for a review.', 'They asked Orla for a review.'],
    ['what your own young sister lent you', 'what their own young sister lent them']
  ])('%s', (said, about) => {
    expect(aboutThem(said)).toBe(about)
  })

  it('never says "you" to somebody else, whatever is refused', () => {
    const said = REFUSALS.map((refusal) => aboutThem(refusalText(refusal, 'UTC')))
    expect(said.filter((one) => /\byou/i.test(one))).toEqual([])
    expect(said.filter((one) => /\b(for|of|placed|move|register) they\b/.test(one))).toEqual([])
  })
})
