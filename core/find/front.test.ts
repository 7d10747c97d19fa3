import { describe, expect, it } from 'vitest'
import { dice } from '../degree/best/testing/cases'
import { unbeaten } from './front'

describe('what nothing beats', () => {
  it('is what no other is as good as on both and better on one (300 sets, seeds 1 to 300)', () => {
    for (let seed = 1; seed <= 300; seed++) {
      const roll = dice(seed)
      const points = Array.from({ length: 1 + (seed % 40) }, () => {
        return [Math.floor(roll() * 8), Math.floor(roll() * 8)] as const
      })
      const beats = (a: readonly [number, number], b: readonly [number, number]) =>
        a[0] <= b[0] && a[1] <= b[1] && (a[0] < b[0] || a[1] < b[1])
      const plain = points.flatMap((point, i) => (points.some((other) => beats(other, point)) ? [] : [i]))
      expect({ seed, found: unbeaten(points).toSorted((a, b) => a - b) }).toEqual({ seed, found: plain })
    }
  })
  it('is nothing of nothing', () => expect(unbeaten([])).toEqual([]))
})
