import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Catalog } from '../catalog'
import type { TermCode } from '../ids'
import { course, entry as built, term } from '../testing/build'
import type { RepeatPolicy } from './attempt'
import { attemptsOf } from './attemptList'
import { gradedAttempts } from './forecast'
import { recordTerms } from './recordTerms'

const catalog = new Catalog(
  ['ENVI 101', 'ENVI 102', 'STAT 101', 'STAT 102', 'MATH 101'].map((code) => course(code))
)
const entry = (code: string, of: string | null, grade: string | null, credits: number) =>
  built(code, grade, { term: of as TermCode | null, credits, origin: of === null ? 'transfer' : 'here' })
const terms = [term('AU26'), term('SP27'), term('AU27')]
const read = (record: ReturnType<typeof entry>[], repeats: RepeatPolicy = 'best') => {
  const attempts = attemptsOf({ catalog, record, held: [], planned: [], repeats }, terms)
  return { attempts, columns: recordTerms({ catalog, record }, attempts, terms) }
}

describe('the record term by term', () => {
  // Points times credits over credits on the 4.0 scale; the better attempt replaces the other (common practice).
  const record = [
    entry('ENVI 101', 'AU26', 'F', 4),
    entry('STAT 101', 'AU26', 'B', 4),
    entry('ENVI 101', 'SP27', 'A', 4),
    entry('STAT 102', 'SP27', 'W', 3),
    entry('MATH 101', null, 'TR', 3),
    entry('ENVI 102', 'AU27', null, 3)
  ]
  const { columns } = read(record)

  it('begins with what was brought in, and has each term once', () => {
    expect(columns.map((one) => one.term)).toEqual([null, 'AU26', 'SP27', 'AU27'])
  })
  it('has the average of the term, and that of all so far as it stood then', () => {
    expect(columns.map((one) => one.average)).toEqual([undefined, 1.5, 4, undefined])
    // After the first term (0 x 4 + 3 x 4) / 8; after the second the F is replaced: (4 x 4 + 3 x 4) / 8.
    expect(columns.map((one) => one.soFar)).toEqual([undefined, 1.5, 3.5, undefined])
  })
  it('counts what was attempted and what is earned, once', () => {
    expect(columns.map((one) => one.attempted)).toEqual([3, 8, 7, 3])
    expect(columns.map((one) => one.earned)).toEqual([3, 4, 4, 0])
  })
  it('says what became of each', () => {
    const failed = columns[1]!.lines.find((line) => line.course === 'ENVI 101')
    expect(failed).toMatchObject({
      state: 'idle',
      why: 'failed',
      replacedBy: { course: 'ENVI 101', term: 'SP27', grade: 'A' }
    })
    expect(columns[2]!.lines.find((line) => line.grade === 'W')).toMatchObject({ why: 'withdrawn' })
    expect(columns[2]!.lines.find((line) => line.grade === 'W')).not.toHaveProperty('replacedBy')
    expect(columns[3]!.lines).toMatchObject([{ state: 'underWay' }])
  })
  it('takes a seat of a term that has begun in, and none to come', () => {
    const held = (code: 'SP27' | 'AU27') => ({
      ...{ course: entry('ENVI 102', null, null, 3).course, term: term(code).code, credits: 3 },
      ...{ section: 'QQQQQ' as never, placedByOffice: false }
    })
    const attempts = attemptsOf(
      { catalog, record: [], held: [held('SP27')], planned: [], phaseIn: () => 'current' },
      terms
    )
    expect(recordTerms({ catalog, record: [] }, attempts, terms)).toMatchObject([
      { term: 'SP27', attempted: 3, earned: 0, lines: [{ course: 'ENVI 102', state: 'underWay' }] }
    ])
    const ahead = attemptsOf({ catalog, record: [], held: [held('AU27')], planned: [] }, terms)
    expect(recordTerms({ catalog, record: [] }, ahead, terms)).toEqual([])
  })
  it('ends at the average of the whole, and attempts and earns no more than there is (400 records, seed 20270421)', () => {
    const one = fc.record({
      course: fc.constantFrom('ENVI 101', 'ENVI 102', 'STAT 101', 'STAT 102', 'MATH 101'),
      term: fc.constantFrom('AU26', 'SP27', 'AU27'),
      grade: fc.constantFrom('A', 'C+', 'F', 'W', 'P', null)
    })
    const records = fc.uniqueArray(one, { selector: (of) => `${of.course} ${of.term}`, maxLength: 12 })
    let graded = 0
    fc.assert(
      fc.property(records, fc.constantFrom<RepeatPolicy>('best', 'last', 'all'), (some, repeats) => {
        const record = some.map((of) => entry(of.course, of.term, of.grade, 3))
        const { attempts, columns } = read(record, repeats)
        const last = columns.findLast((column) => column.soFar !== undefined)
        expect(last?.soFar).toBe(catalog.scale.average(gradedAttempts(attempts)))
        if (last) graded++
        const sum = (of: (column: (typeof columns)[number]) => number) =>
          columns.reduce((total, column) => total + of(column), 0)
        expect(sum((column) => column.attempted)).toBe(3 * record.length)
        const earned = attempts.counted.filter((attempt) => attempt.status === 'earned')
        expect(sum((column) => column.earned)).toBe(3 * earned.length)
      }),
      { seed: 20270421, numRuns: 400 }
    )
    expect(graded).toBeGreaterThan(200)
  })
})
