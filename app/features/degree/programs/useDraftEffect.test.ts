import { describe, expect, it } from 'vitest'
import { verdictOf } from '#shared/degree/drafts'
import { spread } from './useDraftEffect'

describe('those on whom a draft is tried first', () => {
  it('are all where there are few, and come from all over where there are many', () => {
    expect(spread([1, 2, 3], 4)).toEqual([1, 2, 3])
    const many = Array.from({ length: 100 }, (_, i) => i)
    const some = spread(many, 10)
    expect(some).toEqual([0, 10, 20, 30, 40, 50, 60, 70, 80, 90])
    expect(new Set(spread(many, 33)).size).toBe(33)
  })
})

describe('whether a student gains or loses', () => {
  const effect = (of: string, isWorse: boolean) => ({ of, before: '1', after: '2', isWorse })
  it('is told by the figures that differ, and not by what is outside the degree', () => {
    expect(verdictOf([])).toBe('same')
    expect(verdictOf([effect('outside the degree', true)])).toBe('same')
    expect(verdictOf([effect('needed', true)])).toBe('loses')
    expect(verdictOf([effect('finish', false), effect('outside the degree', true)])).toBe('gains')
    expect(verdictOf([effect('finish', false), effect('needed', true)])).toBe('both')
  })
})
