import { describe, expect, it } from 'vitest'
import type { Refusal } from '../findings'
import { course } from '../testing/build'
import { courseTests, inTheWay, type CourseFilter, type FoundCourse } from './courses'
import { filterByFacets } from './facets'

describe('facets', () => {
  const even = (n: number) => n % 2 === 0
  const small = (n: number) => n < 10
  const whole = Array.from({ length: 20 }, (_, n) => n)

  it('keeps what passes every test, in order', () => {
    const { kept } = filterByFacets(
      whole,
      new Map([
        ['even', even],
        ['small', small]
      ])
    )
    expect(kept).toEqual([0, 2, 4, 6, 8])
  })
  it('counts for each test what dropping it alone brings back', () => {
    // Against the obvious: filter again without each test. The seed is the multiplier of the sequence.
    const items = Array.from({ length: 500 }, (_, n) => (n * 7919 + 13) % 1009)
    const tests = new Map<string, (n: number) => boolean>([
      ['even', even],
      ['below 400', (n) => n < 400],
      ['not by 3', (n) => n % 3 !== 0],
      ['above 100', (n) => n > 100]
    ])
    const { kept, excluded, costliest } = filterByFacets(items, tests)
    const passing = (without?: string) =>
      items.filter((n) => [...tests].every(([key, test]) => key === without || test(n)))
    expect(kept).toEqual(passing())
    expect(kept.length).toBeGreaterThan(20)
    for (const key of tests.keys()) expect(excluded.get(key)).toBe(passing(key).length - kept.length)
    expect(excluded.get(costliest!)).toBe(Math.max(...excluded.values()))
  })
  it('names no costliest test where none alone brings anything back', () => {
    const never = () => false
    const { kept, costliest } = filterByFacets(
      whole,
      new Map([
        ['a', never],
        ['b', never]
      ])
    )
    expect(kept).toEqual([])
    expect(costliest).toBeUndefined()
  })
})

describe('what can be asked of courses', () => {
  const found = (over: Partial<FoundCourse> = {}, code = 'SOIL 220'): FoundCourse => ({
    course: course(code, { credits: 4, categories: ['lab', 'place'] }),
    college: 'Land and Water',
    serves: ['ENVD soil', 'MINOR field'],
    atOnce: 2,
    runs: true,
    held: [{ mode: 'inPerson', campus: 'HILL' }],
    there: false,
    refusals: [],
    ...over
  })
  const passes = (filter: CourseFilter, over: Partial<FoundCourse> = {}) =>
    filterByFacets([found(over)], courseTests(filter)).kept.length === 1

  it('asks nothing where nothing is said', () => {
    expect(courseTests({}).size).toBe(0)
    expect(courseTests({ subjects: [], modes: [] }).size).toBe(0)
  })
  it('takes one of a list', () => {
    expect(passes({ subjects: ['HYDR', 'SOIL'] })).toBe(true)
    expect(passes({ subjects: ['HYDR'] })).toBe(false)
    expect(passes({ years: [2] })).toBe(true)
    expect(passes({ colleges: ['Letters'] })).toBe(false)
    expect(passes({ campuses: ['HARBOUR'] })).toBe(false)
    expect(passes({ modes: ['inPerson', 'online'] })).toBe(true)
    expect(passes({ seasons: ['summer'] })).toBe(false)
    expect(passes({ study: 'graduate' })).toBe(false)
  })
  it('asks one category of each family', () => {
    expect(passes({ categories: { working: ['lab', 'field'], general: ['place'] } })).toBe(true)
    expect(passes({ categories: { working: ['field'], general: ['place'] } })).toBe(false)
    expect(passes({ categories: { working: [], general: ['place'] } })).toBe(true)
  })
  it('counts both ends of a range of credits, and a course of variable credits by any of them', () => {
    expect(passes({ credits: { least: 4, most: 4 } })).toBe(true)
    expect(passes({ credits: { least: 1, most: 3 } })).toBe(false)
    const variable = { course: course('ENVI 499', { credits: 1, creditsMost: 4 }) }
    expect(passes({ credits: { least: 3, most: 3 } }, variable)).toBe(true)
    expect(passes({ credits: { least: 5, most: 6 } }, variable)).toBe(false)
  })
  it('asks for a need, or for any two at once', () => {
    expect(passes({ needs: ['ENVD soil'] })).toBe(true)
    expect(passes({ needs: ['ENVD water'] })).toBe(false)
    expect(passes({ serves: 2 })).toBe(true)
    // It could serve either of two, and not both.
    expect(passes({ serves: 2 }, { atOnce: 1 })).toBe(false)
  })
  it('takes what can be taken, and says the one thing in the way', () => {
    const early = { code: 'notOpen', opens: null } as const
    const along: Refusal = { code: 'corequisite', missing: { kind: 'permission' } }
    const full = { code: 'load', credits: 20, most: 18 } as const
    expect(passes({ takable: true }, { refusals: [early, along] })).toBe(true)
    expect(passes({ takable: true }, { runs: false })).toBe(false)
    expect(passes({ takable: true }, { refusals: [early, full] })).toBe(false)
    expect(inTheWay([early, along, full])).toBe(full)
    expect(inTheWay([early])).toBeUndefined()
  })
  it('leaves out what is done or planned, when asked', () => {
    expect(passes({ fresh: true }, { there: true })).toBe(false)
    expect(passes({}, { there: true })).toBe(true)
  })
})
