import { describe, expect, it } from 'vitest'
import { drawLots } from './lots'

/** Every way in which the lots can fall: of four things 4 · 3 · 2 ways. */
function* allDraws(): Generator<(bound: number) => number> {
  for (let a = 0; a < 4; a++)
    for (let b = 0; b < 3; b++)
      for (let c = 0; c < 2; c++) {
        const falls = [a, b, c]
        yield (bound) => {
          const fall = falls.shift()!
          if (fall >= bound) throw new Error(`${fall} is not below ${bound}`)
          return fall
        }
      }
}

describe('an order drawn by lot', () => {
  it('is each of the orders once, of all the ways in which the lots can fall', () => {
    const orders = [...allDraws()].map((below) => drawLots(['a', 'b', 'c', 'd'], below).join(''))
    expect(orders).toHaveLength(24)
    expect(new Set(orders).size).toBe(24)
  })
  it('leaves what was given as it was, and draws nothing for one thing', () => {
    const given = ['a', 'b']
    expect(drawLots(given, () => 0)).toEqual(['b', 'a'])
    expect(given).toEqual(['a', 'b'])
    const never = () => {
      throw new Error('there is nothing to draw')
    }
    expect(drawLots(['a'], never)).toEqual(['a'])
    expect(drawLots([], never)).toEqual([])
  })
})
