import { describe, expect, it } from 'vitest'
import { Catalog } from '#core/catalog'
import { course, entry, planned, term } from '../../core/testing/build'
import { ownLoad } from './load'

const terms = ['AU26', 'SP27', 'SU27', 'AU27', 'SP28'].map((code) => term(code)) as never
const catalog = new Catalog([course('ENVI 101', { credits: 5 })])
const NOBODY = {
  carry: { credits: null, least: null, hours: null, outside: null, target: null, terms: [] },
  record: [],
  held: [],
  route: { courses: [] },
  programs: [{ spec: { credits: 120 }, confirmed: 'confirmed', saidInstead: null }]
}
const load = (over: object) => ownLoad({ ...NOBODY, ...over } as never, { terms, catalog })
const some = (n: number, at: string) =>
  Array.from({ length: n }, (_, i) => entry(`ENVI ${101 + i}`, 'B', { term: at as never }))

describe('what a student takes on in a term', () => {
  it('is what they say', () => {
    expect(load({ carry: { ...NOBODY.carry, credits: 9 }, record: some(5, 'AU26') })).toBe(9)
  })
  it('is by default what the program asks for over its usual terms, and one more', () => {
    expect(load({})).toBe(16)
    const two = { credits: 60, suggested: [[], [], [], []] }
    expect(load({ programs: [{ ...NOBODY.programs[0], spec: two }] })).toBe(16)
    const full = {
      ...two,
      suggested: [['ENVI 101', ...Array.from({ length: 4 }, () => ({ need: 'any' }))], [], [], []]
    }
    expect(load({ programs: [{ ...NOBODY.programs[0], spec: full }] })).toBe(17)
  })
  it('is the most they took on for who has always studied part-time, summers aside', () => {
    expect(load({ record: [...some(2, 'AU26'), ...some(5, 'SU27')] })).toBe(6)
    expect(load({ record: some(2, 'AU26'), carry: { ...NOBODY.carry, least: 9 } })).toBe(9)
  })
  it('is what they plan themselves, where that is more than usual', () => {
    const courses = [101, 102, 103, 104, 105, 106].map((n) => planned(`ENVI ${n}`, 'AU27'))
    expect(load({ record: some(4, 'AU26'), route: { courses } })).toBe(18)
    expect(load({ record: some(2, 'AU27'), route: { courses: courses.slice(0, 2) } })).toBe(6)
  })
})
