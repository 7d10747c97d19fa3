import { describe, expect, it } from 'vitest'
import { courseCode, type SectionCode, type StudentId } from '#core/ids'
import { filledSections, leftCourses, leftText, placingSummary, type ProposedPlacing } from './placing'

const ZONE = 'America/New_York'
const A = courseCode('ENVI 310')
const B = courseCode('SOIL 220')
const full = {
  code: 'full',
  section: 'AAAAA' as SectionCode,
  kind: 'lecture',
  capacity: 18,
  waiting: 0
} as const
const one = (placed: string[], left: ProposedPlacing['left'] = []): ProposedPlacing => ({
  ...{ student: 1 as StudentId, name: 'Somebody', number: 'H204001', ground: 'handedIn' },
  placed: placed.map((code) => ({
    ...{ course: A, credits: 3 },
    sections: [{ code: code as SectionCode, number: '01' }]
  })),
  left
})

describe('a placing in a sentence', () => {
  it.each([
    [
      [one(['AAAAA']), one(['AAAAA'], [{ course: B, refusals: [full] }])],
      '2 students to place: 1 in all that they want, 1 in a part of it.'
    ],
    [
      [one([], [{ course: B, refusals: [full] }]), one([])],
      '1 student to place: 1 in nothing. 1 has or waits for everything already.'
    ],
    [[one([]), one([])], 'All have or wait for everything already.'],
    [[], 'Nobody is in this group.']
  ])('says who fits (%#)', (all, text) => expect(placingSummary(all)).toBe(text))
})

describe('the seats of a placing', () => {
  const section = (code: string, taken: number) => ({
    ...{ code: code as SectionCode, number: '01', course: A },
    ...{ capacity: 20, taken }
  })
  it('are counted section by section, the fullest first, and without those that nobody is proposed', () => {
    const all = [one(['AAAAA', 'BBBBB']), one(['BBBBB'])]
    const found = filledSections([section('AAAAA', 3), section('BBBBB', 17), section('CCCCC', 20)], all)
    expect(found.map(({ code, proposed }) => [code, proposed])).toEqual([
      ['BBBBB', 2],
      ['AAAAA', 1]
    ])
  })
})

describe('what is left', () => {
  it('is told by course and reason, the most frequent first', () => {
    const all = [
      one([], [{ course: B, refusals: [full] }]),
      one(
        [],
        [
          { course: B, refusals: [full] },
          { course: A, refusals: [] }
        ]
      )
    ]
    expect(leftCourses(all, ZONE)).toEqual([
      { course: B, why: 'No seat is left in it.', students: 2 },
      { course: A, why: 'Nothing of it can be proposed.', students: 1 }
    ])
  })
  it('is said of the student, to an office', () => {
    expect(leftText([{ code: 'signOff', ended: null, changed: false }], ZONE)).toBe(
      'Their advisor has not signed off this term yet.'
    )
  })
})
