import { describe, expect, it } from 'vitest'
import { bandPath, flowShapes, type Flow } from './flowShapes'

const flows: Flow[] = [
  { from: 'MATH 131', to: 'Quantitative', amount: 4 },
  { from: 'STAT 110', to: 'Quantitative', amount: 3 },
  { from: 'SOIL 220', to: 'Core', amount: 4 },
  { from: 'SOIL 220', to: 'Laboratory', amount: 1 }
]

describe('bands between two columns', () => {
  const { left, right, bands } = flowShapes(flows, 200, 10)

  it('keep the order in which their ends come', () => {
    expect(left.map((end) => end.key)).toEqual(['MATH 131', 'STAT 110', 'SOIL 220'])
    expect(right.map((end) => end.key)).toEqual(['Quantitative', 'Core', 'Laboratory'])
  })

  it('are as wide as what flows in them, to one scale on both sides', () => {
    for (const [i, flow] of flows.entries()) expect(bands[i]!.width / flow.amount).toBeCloseTo(15)
    expect(left[2]!.bottom - left[2]!.top).toBeCloseTo(75)
    expect(right[0]!.bottom - right[0]!.top).toBeCloseTo(105)
  })

  it('fill the height on both sides, and no end lies over another', () => {
    for (const ends of [left, right]) {
      expect(ends[0]!.top).toBe(0)
      expect(ends.at(-1)!.bottom).toBeCloseTo(200)
      for (const [i, end] of ends.slice(1).entries()) expect(end.top).toBeGreaterThanOrEqual(ends[i]!.bottom)
    }
  })

  it('lie within their ends, one under the other', () => {
    expect(bands[2]!.left + bands[2]!.width).toBeCloseTo(bands[3]!.left)
    expect(bands[1]!.right).toBeCloseTo(bands[0]!.right + bands[0]!.width)
    for (const [i, { from, to }] of flows.entries()) {
      const [a, b] = [left.find((end) => end.key === from)!, right.find((end) => end.key === to)!]
      const { left: begins, right: ends, width } = bands[i]!
      expect(begins).toBeGreaterThanOrEqual(a.top)
      expect(begins + width).toBeLessThanOrEqual(a.bottom + 1e-9)
      expect(ends + width).toBeLessThanOrEqual(b.bottom + 1e-9)
    }
  })

  it('are level where they leave and arrive', () => {
    expect(bandPath({ left: 10, right: 50, width: 4 }, 0, 100)).toBe(
      'M0 10C50 10 50 50 100 50L100 54C50 54 50 14 0 14Z'
    )
  })

  it('are none of nothing, and one alone takes the height', () => {
    expect(flowShapes([], 100, 5)).toEqual({ left: [], right: [], bands: [] })
    expect(flowShapes([{ from: 'a', to: 'b', amount: 3 }], 100, 5).bands).toEqual([
      { left: 0, right: 0, width: 100 }
    ])
  })
})
