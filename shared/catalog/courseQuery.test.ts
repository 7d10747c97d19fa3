import { describe, expect, it } from 'vitest'
import { courseAddress, readCourseQuery, type CourseQuery } from './courseQuery'

const NOTHING: CourseQuery = { text: '', term: null, sort: 'best', study: null, filter: {} }

describe('a search in an address', () => {
  it('says nothing where nothing is asked', () => {
    expect(courseAddress(NOTHING)).toEqual({})
    expect(readCourseQuery({})).toEqual(NOTHING)
  })
  it('comes back as it was', () => {
    const query: CourseQuery = {
      text: 'SOIL 220, STAT 330',
      term: 'AU27',
      sort: 'needs',
      study: 'any',
      filter: {
        colleges: ['Land and Water'],
        subjects: ['SOIL', 'STAT'],
        years: [2, 3],
        categories: { 'Way of working': ['lab', 'field'], 'General studies': ['place'] },
        credits: { least: 0.5, most: 4 },
        seasons: ['autumn', 'summer'],
        runs: true,
        needs: ['ENVD data-depth'],
        serves: 2,
        takable: true,
        fresh: true,
        modes: ['online'],
        campuses: ['HILL']
      }
    }
    const address = courseAddress(query)
    const text = new URLSearchParams(address).toString()
    expect(readCourseQuery(Object.fromEntries(new URLSearchParams(text)))).toEqual(query)
  })
  it.each(['AU27', '2028W', 'W2028'])('keeps the term %s, however an institution writes it', (term) => {
    const query = { ...NOTHING, term }
    expect(readCourseQuery(courseAddress(query))).toEqual(query)
  })
  it('leaves out what it does not understand', () => {
    const odd = {
      term: 'soon',
      sort: 'colour',
      study: 'x',
      years: '2~-1~two',
      credits: '3 to 4',
      seasons: 'monsoon',
      runs: 'no',
      serves: '-3',
      modes: 'telepathy',
      needs: ['a', 'b']
    }
    expect(readCourseQuery(odd)).toEqual({ ...NOTHING, filter: { years: [2] } })
  })
})
