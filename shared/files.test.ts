import { describe, expect, it } from 'vitest'
import { Catalog } from '#core/catalog'
import { courseCode, studentId, termCode, type SectionCode } from '#core/ids'
import { course, entry, planned } from '../core/testing/build'
import { recordFile } from './record/recordShape'
import { recordFrom } from './files'
import { recordFileOf } from './writtenFiles'

const { scale } = new Catalog([course('ENVI 101')])
const record = [
  entry('ENVI 101', 'B', { campus: 'HILL', mode: 'online', categories: ['field', 'place'] }),
  entry('STAT 110', null, { campus: null, mode: null, categories: null }),
  entry('WRIT 101', 'TR', { term: null, origin: 'transfer', campus: null, mode: null, categories: null })
]
const seat = (course: string, term: string) => ({
  ...{ course: courseCode(course), term: termCode(term), section: 'QX2K7' as SectionCode, credits: 4 },
  ...{ campus: 'HILL', mode: 'inPerson', placedByOffice: false, components: [] }
})
const student = {
  student: {
    id: studentId(1),
    name: 'A student',
    number: '1',
    standing: 'junior' as const,
    level: 'undergraduate' as const,
    residency: 'resident' as const,
    campus: 'HILL',
    block: null,
    attendance: 'fullTime' as const
  },
  record,
  route: { courses: [planned('SOIL 220', 'AU27')] } as never,
  tests: { mathematics: 61 },
  milestones: ['workshop'],
  exceptions: [],
  held: [seat('ENDA 310', 'AU27'), seat('HYDR 205', 'SP27')]
}

describe('a record as a file', () => {
  const written = JSON.stringify(recordFileOf(student, (_, term) => (term === 'SP27' ? 'current' : 'future')))
  const read = recordFile.safeParse(JSON.parse(written))

  it('is one that can be read again', () => {
    expect(read.error?.issues ?? []).toEqual([])
  })
  it('says the same when it is read again: where, how and by which categories each course was held', () => {
    const again = recordFrom(read.data!, scale)
    const underWay = { course: 'HYDR 205', term: 'SP27', grade: null, credits: 4, campus: 'HILL' }
    expect(again.record).toMatchObject([...record, underWay])
    expect(again.held).toMatchObject([
      { course: 'ENDA 310', term: 'AU27', section: 'QX2K7', mode: 'inPerson' }
    ])
    expect(again.planned.map((one) => `${one.course} ${one.term}`)).toEqual(['SOIL 220 AU27'])
    expect([again.standing, again.tests, again.milestones]).toEqual([
      'junior',
      { mathematics: 61 },
      ['workshop']
    ])
  })
  it('is refused with the place of a grade that the scale does not have', () => {
    const odd = { ...read.data!, record: [{ ...read.data!.record[0]!, grade: 'Q' }] }
    expect(() => recordFrom(odd, scale)).toThrow('record/0/grade')
  })
})
