import { describe, expect, it } from 'vitest'
import { Simplex } from './simplex'

describe('the simplex method', () => {
  it('solves a textbook product mix: 3x + 5y, x <= 4, 2y <= 12, 3x + 2y <= 18 gives 36 at (2, 6) (Hillier and Lieberman, Wyndor Glass; from memory)', () => {
    const lp = new Simplex(
      2,
      [
        { terms: [[0, 1]], most: 4 },
        { terms: [[1, 2]], most: 12 },
        {
          terms: [
            [0, 3],
            [1, 2]
          ],
          most: 18
        }
      ],
      [100, 100]
    )
    lp.maximise([
      [0, 3],
      [1, 5]
    ])
    expect(lp.solve()).toBe(true)
    expect([...lp.point()]).toEqual([expect.closeTo(2, 5), expect.closeTo(6, 5)])
  })
  it('says when limits contradict each other', () => {
    const lp = new Simplex(1, [{ terms: [[0, -1]], most: -2 }], [1])
    lp.maximise([[0, 1]])
    expect(lp.solve()).toBe(false)
  })
  it('goes on after a bound has changed, both ways', () => {
    const lp = new Simplex(
      2,
      [
        {
          terms: [
            [0, 1],
            [1, 1]
          ],
          most: 1.5
        }
      ],
      [1, 1]
    )
    lp.maximise([
      [0, 2],
      [1, 1]
    ])
    lp.solve()
    expect([...lp.point()]).toEqual([1, expect.closeTo(0.5, 5)])
    lp.bound(0, 0, 0)
    lp.solve()
    expect([...lp.point()]).toEqual([0, 1])
    lp.bound(0, 0, 1)
    lp.maximise([
      [0, 2],
      [1, 1]
    ])
    lp.solve()
    expect([...lp.point()]).toEqual([1, expect.closeTo(0.5, 5)])
  })
})
