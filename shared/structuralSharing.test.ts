import { describe, expect, it } from 'vitest'
import { shareStructure } from './structuralSharing'

describe('keeping what is the same', () => {
  it('gives back what was there where nothing changed', () => {
    const before = { areas: [{ id: 'a', needs: [1, 2] }], total: 3 }
    expect(shareStructure(before, structuredClone(before))).toBe(before)
  })
  it('keeps the parts that did not change, and only those', () => {
    const before = { one: { n: 1 }, two: { n: 2 }, list: [{ n: 3 }, { n: 4 }] }
    const now = shareStructure(before, { one: { n: 1 }, two: { n: 9 }, list: [{ n: 3 }, { n: 5 }] })
    expect(now).toEqual({ one: { n: 1 }, two: { n: 9 }, list: [{ n: 3 }, { n: 5 }] })
    expect(now.one).toBe(before.one)
    expect(now.list[0]).toBe(before.list[0])
    expect(now.list[1]).not.toBe(before.list[1])
  })
  it('takes a list that got shorter or longer for another one', () => {
    const before = [{ n: 1 }, { n: 2 }]
    const now = shareStructure(before, [{ n: 1 }])
    expect(now).toEqual([{ n: 1 }])
    expect(now[0]).toBe(before[0])
    expect(shareStructure([1], { 0: 1 })).toEqual({ 0: 1 })
  })
  it('looks into plain values only', () => {
    const map = new Map([['a', 1]])
    expect(shareStructure({ map: new Map([['a', 1]]) }, { map }).map).toBe(map)
    expect(shareStructure(undefined, 3)).toBe(3)
    expect(shareStructure(null, { a: null })).toEqual({ a: null })
  })
})
