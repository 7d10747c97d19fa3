import { describe, expect, it } from 'vitest'
import { dice } from '../degree/best/testing/cases'
import { conflictOf, SMALLEST_UP_TO, type Asked } from './conflict'

describe('conflictOf', () => {
  const all = [0, 1, 2, 3, 4, 5, 6]
  /** Answers as if exactly these sets, and what holds one of them, could not be met; grows as far as it can. */
  const asking = (conflicts: readonly (readonly number[])[], asked: number[][] = []) => {
    const fails = (wants: readonly number[]) => conflicts.some((one) => one.every((w) => wants.includes(w)))
    return (wants: readonly number[]): Asked => {
      asked.push([...wants])
      if (fails(wants)) return 'cannot'
      const met = [...wants]
      for (const w of all) if (!met.includes(w) && !fails([...met, w])) met.push(w)
      return { met: new Set(met) }
    }
  }

  it('names the one want that cannot be met, though larger sets come first', () => {
    expect(conflictOf(all, [], asking([[0, 1], [5]]))).toEqual({ wants: [5], smallest: true })
  })

  it('is a smallest set in 500 random cases, and asks of few of the sets there are', () => {
    const roll = dice(11)
    let questions = 0
    for (let n = 0; n < 500; n++) {
      const conflicts = Array.from({ length: 1 + Math.floor(roll() * 4) }, () =>
        all.filter(() => roll() < 0.4)
      ).filter((one) => one.length > 0)
      if (!conflicts.length) continue
      const least = Math.min(...conflicts.map((one) => one.length))
      const asked: number[][] = []
      const { wants, smallest } = conflictOf(all, [], asking(conflicts, asked))
      questions += asked.length
      expect(smallest).toBe(least <= SMALLEST_UP_TO)
      if (smallest) expect(wants).toHaveLength(least)
      // One that is not the smallest is a conflict still, and none can be left out.
      const fails = (some: readonly number[]) => conflicts.some((one) => one.every((w) => some.includes(w)))
      expect(fails(wants)).toBe(true)
      for (const w of wants) expect(fails(wants.filter((one) => one !== w))).toBe(false)
    }
    // Of 63 sets of up to three.
    expect(questions / 500).toBeLessThan(12)
  })

  it('says of no set that it is the smallest where a smaller one was not settled', () => {
    const ask = (wants: readonly number[]): Asked =>
      wants.length === 1 && wants[0] === 4 ? 'unknown' : asking([[3, 4]])(wants)
    expect(conflictOf(all, [], ask)).toEqual({ wants: [3, 4], smallest: false })
  })
})
