import { describe, expect, it } from 'vitest'
import type { Refusal } from '../findings'
import { course, meeting, section } from '../testing/build'
import { optionsAmong, type Section } from '../week'
import { patternOf, sectionTests, type FoundSection, type SectionFilter } from './sections'
import { filterByFacets } from './facets'

const lecture = (over: Partial<Section> = {}) =>
  section('SOIL 220', [meeting('TR', '13:00', '14:15', { building: 'Fern' })], {
    campus: 'HILL',
    credits: 4,
    fee: 60,
    ...over
  })

describe('what can be asked of sections', () => {
  const found = (main: Section, parts: Section[] = [], over: Partial<FoundSection> = {}): FoundSection => ({
    main,
    options: optionsAmong([main, ...parts]),
    course: course('SOIL 220', { credits: 4, categories: ['lab'] }),
    college: 'Land and Water',
    serves: ['ENVD soil'],
    atOnce: 1,
    refusals: [],
    fits: true,
    ...over
  })
  const passes = (filter: SectionFilter, one = found(lecture())) =>
    filterByFacets([one], sectionTests(filter)).kept.length === 1

  it('asks nothing where nothing is said', () => {
    expect(sectionTests({}).size).toBe(0)
    expect(sectionTests({ subjects: [], patterns: [] }).size).toBe(0)
  })
  it('goes by what the section has of its own before what its course has', () => {
    const lab = { way: ['lab'] }
    expect(passes({ categories: lab })).toBe(true)
    expect(passes({ categories: lab }, found(lecture({ categories: ['field'] })))).toBe(false)
    expect(
      passes({ categories: { way: ['field', 'studio'] } }, found(lecture({ categories: ['field'] })))
    ).toBe(true)
    expect(passes({ campuses: ['HILL'] })).toBe(true)
    const away = found(lecture({ offSite: 'Tern Island station' }))
    expect(passes({ campuses: ['HILL'] }, away)).toBe(false)
    expect(passes({ campuses: ['HILL', 'Tern Island station'] }, away)).toBe(true)
  })
  it('takes any of the days, or only these', () => {
    expect(passes({ days: { of: [2], only: false } })).toBe(true)
    expect(passes({ days: { of: [1, 3], only: false } })).toBe(false)
    expect(passes({ days: { of: [2], only: true } })).toBe(false)
    expect(passes({ days: { of: [2, 4, 5], only: true } })).toBe(true)
  })
  it('asks of every class of some choice: with a late lab it is not over by five, with an early one it is', () => {
    const main = lecture()
    const lab = (start: string, end: string) =>
      section('SOIL 220', [meeting('F', start, end)], { kind: 'lab', parent: main.code })
    const late = lab('15:30', '18:00')
    const early = lab('9:00', '11:30')
    expect(passes({ before: 17 * 60 }, found(main, [late]))).toBe(false)
    expect(passes({ before: 17 * 60 }, found(main, [late, early]))).toBe(true)
    expect(passes({ after: 12 * 60 }, found(main, [late, early]))).toBe(true)
    expect(passes({ after: 12 * 60 }, found(main, [early]))).toBe(false)
  })
  it('counts half-open: a class until five is over by five', () => {
    expect(passes({ before: 14 * 60 + 15 })).toBe(true)
    expect(passes({ before: 14 * 60 + 10 })).toBe(false)
    expect(passes({ after: 13 * 60 })).toBe(true)
  })
  it('takes what has no hours at any hour, but at none of the days', () => {
    const online = found(lecture({ mode: 'online', meetings: [] }))
    expect(passes({ after: 600, before: 900, days: { of: [1], only: true } }, online)).toBe(true)
    expect(passes({ days: { of: [1], only: false } }, online)).toBe(false)
  })
  it('knows an open seat from a place in line; both have to be there in the lab as well', () => {
    const main = lecture()
    const lab = (over: Partial<Section>) =>
      section('SOIL 220', [], { kind: 'lab', parent: main.code, ...over })
    const full = found(main, [lab({ capacity: 8, taken: 8, waitCapacity: 2, waiting: 1 })])
    const closed = found(main, [lab({ capacity: 8, taken: 8, waitCapacity: 2, waiting: 2 })])
    expect([passes({ seats: 'open' }), passes({ seats: 'open' }, full)]).toEqual([true, false])
    expect([passes({ seats: 'line' }, full), passes({ seats: 'line' }, closed)]).toEqual([true, false])
  })
  it('asks for place, session, pattern, length, fee and permission', () => {
    expect(passes({ buildings: ['Fern'], campuses: ['HILL'] })).toBe(true)
    expect(passes({ buildings: ['Slate'] })).toBe(false)
    expect(passes({ sessions: ['H1'] })).toBe(false)
    expect(patternOf(lecture())).toBe('24 780-855')
    expect(passes({ patterns: ['24 780-855'] })).toBe(true)
    expect(passes({ length: { least: 75, most: 75 } })).toBe(true)
    expect(passes({ length: { least: 76, most: 200 } })).toBe(false)
    expect([passes({ noFee: true }), passes({ noPermission: true })]).toEqual([false, true])
    expect(passes({ noPermission: true }, found(lecture({ permissionNeeded: true })))).toBe(false)
    expect(passes({ blocks: ['Heron'] }, found(lecture({ block: 'Heron' })))).toBe(true)
    expect(passes({ credits: { least: 3, most: 3 } })).toBe(false)
    expect(passes({ categories: { work: ['lab'] }, subjects: ['SOIL'], modes: ['inPerson'] })).toBe(true)
  })
  it('asks for needs, for what can be taken and for what fits', () => {
    const waits: Refusal = { code: 'prerequisite', missing: { kind: 'permission' } }
    expect([passes({ needs: ['ENVD soil'] }), passes({ serves: 2 })]).toEqual([true, false])
    expect(passes({ takable: true }, found(lecture(), [], { refusals: [waits] }))).toBe(false)
    expect(
      passes({ takable: true }, found(lecture(), [], { refusals: [{ code: 'notOpen', opens: null }] }))
    ).toBe(true)
    expect(passes({ fits: true }, found(lecture(), [], { fits: false }))).toBe(false)
  })
})
