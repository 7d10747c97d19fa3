import { describe, expect, it } from 'vitest'
import { course } from '../core/testing/build'
import { CourseSearch } from './courseSearch'

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
  })
})
