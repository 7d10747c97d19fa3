import { describe, expect, it } from 'vitest'
import { course, section } from '../../core/testing/build'
import { CourseSearch, wordsOfOffer } from './courseSearch'

const search = new CourseSearch([
  course('ENVI 310', { title: 'Environmental Impact' }),
  course('ENVI 101', { title: 'The Living Landscape' }),
  course('SOIL 220', { title: 'Soil Process' }),
  course('STAT 330', { title: 'Regression', categories: ['quantitative'] }),
  course('MATH 094', { title: 'Algebra Bridge' }),
  course('MATH 194', { title: 'Puzzles' })
])
const codes = (text: string, most = 9) => search.find(text, most).map((one) => one.code as string)

describe('finding a course', () => {
  it.each(['ENVI 310', 'envi310', 'ENVI-310', ' envi  310 '])('reads the code in "%s"', (text) => {
    expect(codes(text)[0]).toBe('ENVI 310')
  })
  it('finds a number without its leading zero', () => {
    expect(codes('94')).toEqual(['MATH 094'])
    expect(codes('math 94')[0]).toBe('MATH 094')
  })
  it('finds words of the title, begun or with a slip in them', () => {
    expect(codes('regresion')).toEqual(['STAT 330'])
    expect(codes('envronmental impact')).toEqual(['ENVI 310'])
    expect(codes('land')).toContain('ENVI 101')
  })
  it('asks for all words, and for several courses at once', () => {
    expect(codes('soil landscape')).toEqual([])
    expect(codes('SOIL 220, STAT 330').slice(0, 2)).toEqual(['SOIL 220', 'STAT 330'])
  })
  it('finds a whole subject and a category', () => {
    expect(codes('envi').sort()).toEqual(['ENVI 101', 'ENVI 310'])
    expect(codes('quantitative')).toEqual(['STAT 330'])
  })
  it('finds nothing for nothing, and no more than asked for', () => {
    expect(codes('')).toEqual([])
    expect(codes(' , ')).toEqual([])
    expect(codes('envi', 1)).toHaveLength(1)
    expect(codes('envi, math', Infinity)).toHaveLength(4)
  })
})

describe('finding by words beside the course', () => {
  const courses = ['ENVI 310', 'SOIL 220', 'HERI 330'].map((code) => course(code))
  const offer = wordsOfOffer([
    section('HERI 330', [], { topic: 'Mills of the lower valley', instructors: ['Greta Tarn'] }),
    section('HERI 330', [], { topic: 'Mills of the lower valley', instructors: ['Silas Ilves'] }),
    section('SOIL 220', [], { instructors: ['Greta Tarn'] })
  ])
  const words = ({ code }: { code: string }) => ({
    ...offer.get(code),
    subject: code.startsWith('HERI') ? 'Heritage' : undefined,
    description: code === 'ENVI 310' ? 'Weighing what a dam would do to a river.' : 'Something else.'
  })
  const codesIn = (search: CourseSearch, text: string) =>
    search.find(text, 9).map((one) => one.code as string)
  const wordy = new CourseSearch(courses, words)

  it('keeps topics and instructors once each', () => {
    expect(offer.get('HERI 330')).toEqual({
      topics: ['Mills of the lower valley'],
      instructors: ['Greta Tarn', 'Silas Ilves']
    })
  })
  it('finds descriptions, topics, instructors and names of subjects', () => {
    expect(codesIn(wordy, 'river dam')).toEqual(['ENVI 310'])
    expect(codesIn(wordy, 'mills')).toEqual(['HERI 330'])
    expect(codesIn(wordy, 'greta tarn').sort()).toEqual(['HERI 330', 'SOIL 220'])
    expect(codesIn(wordy, 'heritage')).toEqual(['HERI 330'])
  })
  it('is the same made lot by lot', async () => {
    const many = Array.from({ length: 600 }, (_, n) => course(`TEST ${100 + n}`, { title: `Matter ${n}` }))
    let rests = 0
    const lots = await CourseSearch.make(
      many,
      () => ({}),
      () => Promise.resolve(rests++)
    )
    const whole = new CourseSearch(many)
    expect(rests).toBe(3)
    for (const text of ['matter 17', 'test 599', '450'])
      expect(codesIn(lots, text)).toEqual(codesIn(whole, text))
  })
})
