import { describe, expect, it } from 'vitest'
import { courseCode, maybeCourseCode, studentId, termCode } from '../ids'
import { course, term } from '../testing/build'
import { Catalog, nextRun, numberOf, runsIn, subjectOf, usualYearLevel, usuallyRuns } from './course'
import { byStart, phaseOf } from './term'

describe('course codes', () => {
  it.each(['ENVI 310', 'envi310', 'ENVI-310', ' Envi  310 '])('reads "%s"', (text) => {
    expect(courseCode(text)).toBe('ENVI 310')
  })
  it('keeps leading zeros and letters', () => {
    expect(courseCode('chem 015l')).toBe('CHEM 015L')
    expect(numberOf(courseCode('CHEM 015L'))).toBe(15)
    expect(subjectOf(courseCode('CHEM 015L'))).toBe('CHEM')
  })
  it.each([
    ['math 10.101', 'MATH 10.101'],
    ['MATH10.101', 'MATH 10.101'],
    ['ENGL f21a', 'ENGL F21A'],
    ['engl-F21a', 'ENGL F21A'],
    ['PHYS 8', 'PHYS 8']
  ])('have numbers of other forms: %s', (text, code) => expect(courseCode(text)).toBe(code))
  it.each(['ENGL FF21', 'MATH 10.', 'MATH .101', 'MATH 10.1.1', 'ABCDE 1000.100A', 'MATH 12345'])(
    'have none such as %s',
    (text) => expect(maybeCourseCode(text)).toBeUndefined()
  )
  it('stand in the order of their numbers, the part after the point as a number of its own', () => {
    const codes = ['MATH 9', 'MATH 10', 'MATH 10.9', 'MATH 10.99', 'MATH 10.101', 'MATH 11'].map(courseCode)
    expect(codes.map(numberOf)).toEqual([...codes.map(numberOf)].sort((a, b) => a - b))
    expect(new Set(codes.map(numberOf)).size).toBe(codes.length)
    expect(numberOf(courseCode('ENGL F21A'))).toBe(21)
  })
  it('are by default of the year that the first of three digits says', () => {
    const years = ['ENVI 310', 'CHEM 015L', 'MATH 10.101', 'MATH 10.2', 'ENGL F214', 'ENVI 1250']
    expect(years.map((code) => usualYearLevel(courseCode(code)))).toEqual([3, 0, 1, 0, 2, 9])
  })
  it('says what it wanted', () => {
    expect(maybeCourseCode('310')).toBeUndefined()
    expect(() => courseCode('310')).toThrow('"ENVI 310"')
    expect(() => termCode('Autumn')).toThrow('"AU27"')
    expect(() => studentId(0)).toThrow('student id')
  })
})

describe('when a course runs', () => {
  const autumn27 = term('AU27')
  const autumn28 = term('AU28')
  it('follows season and odd or even years', () => {
    const odd = { seasons: ['autumn' as const], years: 'odd' as const }
    expect(usuallyRuns(odd, autumn27)).toBe(true)
    expect(usuallyRuns(odd, autumn28)).toBe(false)
    expect(usuallyRuns(odd, term('SP27'))).toBe(false)
  })
  it('is told by the sections once they are published', () => {
    const soil = course('SOIL 220', { offered: { seasons: ['autumn'], years: 'every' } })
    const published = { ...autumn27, published: true }
    expect(runsIn(soil, autumn27, new Map())).toBe(true)
    expect(runsIn(soil, published, new Map([['AU27', new Set<string>()]]))).toBe(false)
    expect(runsIn(soil, published, new Map([['AU27', new Set(['SOIL 220'])]]))).toBe(true)
  })
  it('is next offered where sections are published, else where the pattern says so', () => {
    const soil = course('SOIL 220', { offered: { seasons: ['autumn'], years: 'every' } })
    const terms = [autumn27, term('SP28'), autumn28]
    const seen = terms.map((one) => ({ ...one, published: one === autumn27 }))
    const next = (sections: string[], today = '2027-04-09') => {
      const found = nextRun(soil, seen, today, new Map([['AU27', new Set(sections)]]))
      return found && `${found.term.code} by ${found.ground}`
    }
    expect(next(['SOIL 220'])).toBe('AU27 by sections')
    expect(next([])).toBe('AU28 by pattern')
    expect(next(['SOIL 220'], autumn27.start)).toBe('AU28 by pattern')
    expect(next([], '2029-01-01')).toBeUndefined()
  })
})

describe('terms', () => {
  it('are ordered by first day', () => {
    const codes = [term('AU27'), term('SP28'), term('SU27'), term('SP27')].sort(byStart).map((t) => t.code)
    expect(codes).toEqual(['SP27', 'SU27', 'AU27', 'SP28'])
  })
  it('hold their last day', () => {
    const t = term('AU27')
    expect(phaseOf(t, t.end)).toBe('current')
    expect(phaseOf(t, t.start)).toBe('current')
    expect(phaseOf(t, '2028-01-01')).toBe('past')
    expect(phaseOf(t, '2027-04-09')).toBe('future')
  })
})

describe('catalog', () => {
  const catalog = new Catalog([course('STAT 110', { equivalents: [courseCode('MATH 110')] })])
  it('finds a course or says that there is none', () => {
    expect(catalog.course('STAT 110').code).toBe('STAT 110')
    expect(catalog.maybeCourse('STAT 999')).toBeUndefined()
    expect(() => catalog.course('STAT 999')).toThrow('no course STAT 999')
  })
  it('knows what counts as a course', () => {
    expect(catalog.sameAs(courseCode('STAT 110'))).toEqual(['STAT 110', 'MATH 110'])
  })
})
