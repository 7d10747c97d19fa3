import { describe, expect, it } from 'vitest'
import { courseCode } from '../ids'
import { isScarce, outlook, scarceCourses, type OutlookLine } from './outlook'

type Choice = OutlookLine['choices'][number]
const seats = (credits: number, over: Partial<Choice> = {}): Choice =>
  ({ kind: 'seats', credits, isRefused: false, isScarce: false, ...over }) as Choice
const waits: Choice = { kind: 'line', isRefused: false }
const line = (course: string, ...choices: Choice[]): OutlookLine => ({ course: courseCode(course), choices })

describe('what a run comes to', () => {
  const lines = [
    line('SOIL 220', seats(4, { isScarce: true }), seats(4)),
    line('ENDA 310', seats(4)),
    line('WRIT 215', seats(3, { isScarce: true })),
    line('MATH 231', seats(3, { isRefused: true }), waits),
    line('HYDR 330', seats(3, { isRefused: true }))
  ]
  it('takes of each line the first choice that goes through', () => {
    expect(outlook(lines, 2, false)).toEqual({ credits: 13, seats: 3, waits: 1, nothing: 1 })
  })
  it('takes scarce sections to be full by then, and goes on with the next choice', () => {
    expect(outlook(lines, 2, true)).toEqual({ credits: 10, seats: 2, waits: 1, nothing: 2 })
    expect(scarceCourses(lines)).toEqual(['SOIL 220', 'WRIT 215'])
  })
  it('does not name a line whose scarce section is not the one that would be taken', () => {
    expect(
      scarceCourses([line('SOIL 220', seats(4, { isRefused: true, isScarce: true }), seats(4))])
    ).toEqual([])
  })
  it('counts three seats, or 15 in a hundred, as few', () => {
    const left = (capacity: number, seatsLeft: number) => isScarce({ capacity, taken: capacity - seatsLeft })
    expect([left(12, 3), left(12, 4), left(100, 15), left(100, 16)]).toEqual([true, false, true, false])
  })
})
