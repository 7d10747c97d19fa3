import { describe, expect, it } from 'vitest'
import type { FoundCard } from './finding'
import { ticksOf, tradeOffPoints } from './tradeOff'

const card = (number: number, between: number, firstStart: number | null): FoundCard =>
  ({ number, figures: { between, firstStart } }) as FoundCard

describe('weeks by two measures', () => {
  it('are one point where they are alike in both, unbeaten where none is better in one and as good in the other', () => {
    const points = tradeOffPoints(
      [card(1, 60, 600), card(2, 60, 600), card(3, 120, 540), card(4, 0, 480), card(5, 0, null)],
      'between',
      'first'
    )
    expect(points.map(({ cards, unbeaten }) => [cards.map((one) => one.number), unbeaten])).toEqual([
      [[1, 2], false],
      [[3], false],
      [[4], false],
      // Without a class there is none too early.
      [[5], true]
    ])
  })

  it('have ticks at whole steps around them, never below nothing, also where all are alike', () => {
    expect(ticksOf('between', [30, 250])).toEqual([0, 60, 120, 180, 240, 300])
    expect(ticksOf('days', [3])).toEqual([2, 3, 4])
    expect(ticksOf('risky', [0, 0])).toEqual([0, 1])
    expect(ticksOf('first', [480, 1200])).toEqual([360, 540, 720, 900, 1080, 1260])
  })
})
