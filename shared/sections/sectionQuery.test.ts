import { describe, expect, it } from 'vitest'
import { meeting, section } from '../../core/testing/build'
import {
  haystackOf,
  isTyped,
  readSectionQuery,
  readAllTyped,
  readTyped,
  sectionAddress,
  typedCode,
  type SectionQuery
} from './sectionQuery'

describe('what is typed', () => {
  it('may be day letters and hours; R is Thursday (common practice)', () => {
    expect(readTyped('TR 9-12')).toEqual({ words: [], days: [2, 4], from: 540, to: 720 })
    expect(readTyped('MWF 9:30-10:45')).toMatchObject({ days: [1, 3, 5], from: 570, to: 645 })
    expect(readTyped('12-1').to).toBe(13 * 60)
  })
  it('means the afternoon by hours from one to seven, unless it says am', () => {
    expect(readTyped('2-4')).toMatchObject({ from: 840, to: 960 })
    expect(readTyped('7am-9am')).toMatchObject({ from: 420, to: 540 })
    expect(readTyped('6pm-8:45pm')).toMatchObject({ from: 1080, to: 1245 })
  })
  it('may be days and hours as they are written on screen', () => {
    expect(readTyped('Mon Wed Fri')).toMatchObject({ words: [], days: [1, 3, 5] })
    expect(readTyped('Tue Thu 9:30–10:45')).toMatchObject({ days: [2, 4], from: 570, to: 645 })
    expect(readTyped('Mon 6:00–8:45 pm')).toMatchObject({ days: [1], from: 1080, to: 1245 })
    expect(readTyped('Thursday 11:00–1:00 pm')).toMatchObject({ days: [4], from: 660, to: 780 })
    expect(readTyped('8:00–9:15 pm')).toMatchObject({ from: 1200, to: 1275 })
    expect(readTyped('Monroe')).toMatchObject({ words: ['monroe'], days: undefined })
  })
  it('may be several questions with commas between', () => {
    expect(readAllTyped('ENVI 310, SOIL 220 TR,').map((one) => [one.words, one.days])).toEqual([
      [['envi 310'], undefined],
      [['soil 220'], [2, 4]]
    ])
    expect(readAllTyped('  ')).toHaveLength(1)
  })
  it('keeps words as words: small letters are none of days', () => {
    expect(readTyped('soil mw')).toEqual({
      words: ['soil', 'mw'],
      days: undefined,
      from: undefined,
      to: undefined
    })
    expect(readTyped('ENVI 310-02 peat').words).toEqual(['envi 310-02', 'peat'])
  })
  const main = section('ENVI 310', [meeting('TR', '9:30', '10:45', { room: 'Slate 204' })], {
    number: '02',
    topic: 'Peat and ponds',
    instructors: ['Ada Brandvold']
  })
  const finds = (text: string) =>
    isTyped(
      haystackOf(main, 'River Systems', 'Environmental Science', [], () => 'Hill campus'),
      main,
      readTyped(text)
    )
  it('finds a section by course, number, words, topic, instructor and room', () => {
    for (const text of [
      'ENVI 310-02',
      'envi310',
      'river',
      'peat',
      'brandvold',
      'slate',
      'hill campus',
      'Tue Thu',
      'ENVI TR',
      'TR 9-12'
    ])
      expect({ text, found: finds(text) }).toEqual({ text, found: true })
    for (const text of ['ENVI 310-01', 'iver', 'MW', 'TR 10-12', 'peat quist', 'T', 'envi 204'])
      expect({ text, found: finds(text) }).toEqual({ text, found: false })
  })
  it('knows a section code by its check character', () => {
    expect(typedCode('f5nab')).toBe('F5NAB')
    expect(typedCode('F5NAC')).toBeUndefined()
  })
})

describe('the address of a search', () => {
  const nothing: SectionQuery = { text: '', term: null, sort: 'best', office: false, filter: {} }
  it('says nothing of what is not asked', () => {
    expect(sectionAddress(nothing)).toEqual({})
    expect(readSectionQuery({})).toEqual(nothing)
  })
  it('comes back as it was', () => {
    const query: SectionQuery = {
      text: 'peat TR 9-12',
      term: 'AU27',
      sort: 'seats',
      office: true,
      filter: {
        subjects: ['ENVI', 'SOIL'],
        patterns: ['24 570-645'],
        modes: ['inPerson', 'mixed'],
        days: { of: [2, 4], only: true },
        after: 570,
        before: 1020,
        length: { least: 0, most: 55 },
        credits: { least: 0.5, most: 4 },
        seats: 'line',
        serves: 2,
        categories: { 'Way of working': ['lab', 'field'] },
        needs: ['ENVD soil'],
        noFee: true,
        takable: true,
        fits: true
      }
    }
    expect(readSectionQuery(sectionAddress(query))).toEqual(query)
  })
  it('leaves out what it does not understand', () => {
    const odd = {
      days: 'any9',
      after: 'noon',
      seats: 'all',
      length: '5',
      sort: 'luck',
      term: 'now',
      modes: 'dream'
    }
    expect(readSectionQuery(odd)).toEqual(nothing)
  })
})
