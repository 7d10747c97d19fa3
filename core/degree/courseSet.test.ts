import { describe, expect, it } from 'vitest'
import { RuleError } from '../rules'
import { course } from '../testing/build'
import { parseCourseSet } from './courseSet'

const has = (text: string, code: string, over = {}) => parseCourseSet(text).has(course(code, over))

describe('course sets', () => {
  it('hold both ends of a range', () => {
    expect(has('ENVI 300-499', 'ENVI 300')).toBe(true)
    expect(has('ENVI 300-499', 'ENVI 499')).toBe(true)
    expect(has('ENVI 300-499', 'ENVI 500')).toBe(false)
    expect(has('ENVI 300-499', 'HYDR 310')).toBe(false)
  })
  it('hold numbers with a second part by that, and numbers with a letter where they say it', () => {
    const inRange = (text: string, codes: string[]) => codes.filter((code) => has(text, code))
    const dotted = ['MATH 10.99', 'MATH 10.100', 'MATH 10.101', 'MATH 11', 'MATH 12.5', 'MATH 13']
    expect(inRange('MATH 10.100-10.199', dotted)).toEqual(['MATH 10.100', 'MATH 10.101'])
    expect(inRange('MATH 11-12', dotted)).toEqual(['MATH 11', 'MATH 12.5'])
    expect(inRange('MATH 10.101+', dotted)).toEqual(['MATH 10.101', 'MATH 11', 'MATH 12.5', 'MATH 13'])
    const lettered = ['ENGL 20', 'ENGL F20', 'ENGL F21A', 'ENGL G21']
    expect(inRange('ENGL F20-F21', lettered)).toEqual(['ENGL F20', 'ENGL F21A'])
    expect(inRange('ENGL 1-99', lettered)).toEqual(['ENGL 20'])
    expect(inRange('ENGL F21+', lettered)).toEqual(['ENGL F21A'])
    expect(inRange('ENGL *', lettered)).toEqual(lettered)
    expect(parseCourseSet('ENGL F20, F21a or MATH 10.101, 102').named).toEqual([
      ...['ENGL F20', 'ENGL F21A', 'MATH 10.101', 'MATH 102']
    ])
    for (const empty of ['ENGL F1-G9', 'ENGL 1-F9', 'MATH 10.9-10.8'])
      expect(() => parseCourseSet(empty), empty).toThrow('is empty')
    expect(() => parseCourseSet('MATH 10.5555-11')).toThrow('"10.5555" is not a course number at position 6')
  })
  it('repeat the subject after a comma', () => {
    expect(parseCourseSet('ENVI 101, 150 or STAT 212').listed).toEqual(['ENVI 101', 'ENVI 150', 'STAT 212'])
  })
  it('narrow with "and" and "without", left to right', () => {
    const text = 'ENVI * and level 300+ without ENVI 310'
    expect(has(text, 'ENVI 320')).toBe(true)
    expect(has(text, 'ENVI 310')).toBe(false)
    expect(has(text, 'ENVI 150')).toBe(false)
  })
  it('go by the level that is data, not by the number', () => {
    expect(has('level 300+', 'ENVI 094', { yearLevel: 3 })).toBe(true)
  })
  it('know categories, study levels and open ranges', () => {
    expect(has('category lab', 'CHEM 115', { categories: ['lab'] })).toBe(true)
    expect(has('category lab', 'CHEM 115')).toBe(false)
    expect(has('any without graduate', 'ENVI 702', { level: 'graduate' })).toBe(false)
    expect(has('STAT 200+', 'STAT 330')).toBe(true)
  })
  it('go by the categories of the section where it has its own', () => {
    const lab = parseCourseSet('category lab')
    const chem = course('CHEM 115', { categories: ['lab'] })
    expect(lab.has(chem, { categories: null })).toBe(true)
    expect(lab.has(chem, { categories: [] })).toBe(false)
    expect(lab.has(chem, { categories: ['field'] })).toBe(false)
    expect(lab.has(course('STAT 110'), { categories: ['number', 'lab'] })).toBe(true)
  })
  it('take an equivalent course for the one named', () => {
    expect(has('STAT 110', 'MATH 110', { equivalents: ['STAT 110'] })).toBe(true)
  })
  it('are not a list when they hold more than named courses', () => {
    expect(parseCourseSet('ENVI 101 or STAT *').listed).toBeUndefined()
  })
  it.each([
    ['ENVI 499-300', 'the range 499-300 is empty'],
    ['ENVI', 'expected a course number'],
    ['level 300', 'expected "+"'],
    ['', 'expected a course, a subject or a condition'],
    ['ENVI 101 ENVI 102', 'expected "or", "and", "without" or the end']
  ])('refuse "%s"', (text, message) => {
    expect(() => parseCourseSet(text)).toThrow(RuleError)
    expect(() => parseCourseSet(text)).toThrow(message)
  })
})
