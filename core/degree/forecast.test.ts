import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Catalog } from '../catalog'
import { COMMON_SCALE } from '../grades'
import { courseCode, termCode } from '../ids'
import { course, entry, term } from '../testing/build'
import { dice } from './best/testing/cases'
import { averageNeeded, gradedAttempts, paceOfProgress } from './forecast'
import { attemptsOf } from './attemptList'

const catalog = new Catalog(['ENVI 101', 'ENVI 102', 'STAT 101', 'STAT 102'].map((code) => course(code)))
const attempts = (record: ReturnType<typeof entry>[]) =>
  attemptsOf({ catalog, record, held: [], planned: [] }, [term('AU26'), term('SP27')])

describe('the average that is needed', () => {
  it('follows from the definition: 60 credits at 2.8 ask for 3.2 over 60 more to reach 3.0', () => {
    // (2.8 x 60 + 3.2 x 60) / 120 = 3.0, common practice on the 4.0 scale.
    expect(averageNeeded({ points: 168, credits: 60 }, 60, 3)).toEqual({
      kind: 'possible',
      least: expect.closeTo(3.2, 10)
    })
  })
  it('says when the best grades would not do, and how far they go', () => {
    expect(averageNeeded({ points: 180, credits: 90 }, 30, 3)).toEqual({ kind: 'outOfReach', best: 2.5 })
  })
  it('says when it is reached whatever comes, and when nothing comes', () => {
    expect(averageNeeded({ points: 400, credits: 100 }, 20, 3)).toEqual({ kind: 'reached', least: 0 })
    expect(averageNeeded({ points: 30, credits: 10 }, 0, 3)).toEqual({ kind: 'nothingLeft' })
  })
  it('starts from nothing', () => {
    expect(averageNeeded({ points: 0, credits: 0 }, 15, 3.5)).toEqual({ kind: 'possible', least: 3.5 })
  })
  it.each([-1, 4.1, Number.NaN])('refuses a target of %d', (target) => {
    expect(() => averageNeeded({ points: 0, credits: 0 }, 10, target)).toThrow('between 0 and 4')
  })
  it('refuses credits below zero', () => {
    expect(() => averageNeeded({ points: 0, credits: 0 }, -3, 3)).toThrow('-3')
  })
  it('gives the target back when it is earned (300 cases, seed 20270420)', () => {
    const totals = fc.record({
      credits: fc.integer({ min: 1, max: 120 }),
      gpa: fc.integer({ min: 0, max: 40 })
    })
    let possible = 0
    fc.assert(
      fc.property(
        totals,
        fc.integer({ min: 1, max: 120 }),
        fc.integer({ min: 0, max: 40 }),
        (so, more, aim) => {
          const points = (so.gpa / 10) * so.credits
          const found = averageNeeded({ points, credits: so.credits }, more, aim / 10)
          if (found.kind !== 'possible') return
          possible++
          expect((points + found.least * more) / (so.credits + more)).toBeCloseTo(aim / 10, 8)
        }
      ),
      { seed: 20270420, numRuns: 300 }
    )
    expect(possible).toBeGreaterThan(100)
  })
})

describe('graded attempts', () => {
  it('hold a failed course until it is passed, and agree with the average', () => {
    const failed = attempts([entry('ENVI 101', 'A'), entry('STAT 101', 'F')])
    const graded = gradedAttempts(failed)
    const { points, credits } = COMMON_SCALE.totals(graded)
    expect({ points, credits }).toEqual({ points: 12, credits: 6 })
    expect(points / credits).toBe(COMMON_SCALE.average(graded))
    const passed = attempts([entry('STAT 101', 'F'), entry('STAT 101', 'B', { term: termCode('SP27') })])
    expect(gradedAttempts(passed)).toHaveLength(1)
  })
  it('hold it while it is planned, held or under way again, and let it go for an equivalent that is passed', () => {
    const terms = [term('AU26'), term('SP27')]
    const failed = entry('STAT 101', 'F')
    const again = { course: failed.course, term: termCode('SP27'), credits: 3 }
    const read = (over: Partial<Parameters<typeof attemptsOf>[0]>, of = catalog) =>
      gradedAttempts(attemptsOf({ catalog: of, record: [failed], held: [], planned: [], ...over }, terms))
    expect(read({ planned: [{ ...again, note: null, locked: false }] })).toHaveLength(1)
    expect(read({ held: [{ ...again, section: 'QQQQQ' as never, placedByOffice: false }] })).toHaveLength(1)
    expect(read({ record: [failed, entry('STAT 101', null, { term: termCode('SP27') })] })).toHaveLength(1)
    const same = new Catalog([
      course('STAT 101', { equivalents: [courseCode('STAT 102')] }),
      course('STAT 102', { equivalents: [courseCode('STAT 101')] })
    ])
    const other = [failed, entry('STAT 102', 'B', { term: termCode('SP27') })]
    expect(read({ record: other }, same).map((one) => one.grade)).toEqual(['B'])
    expect(read({ record: other }).map((one) => one.grade)).toEqual(['B', 'F'])
  })
  it('are the same whatever was brought in beside them (300 records, from seed 1)', () => {
    const same = new Catalog([
      course('ENVI 101'),
      course('STAT 101', { equivalents: [courseCode('STAT 102')] }),
      course('STAT 102', { equivalents: [courseCode('STAT 101')] }),
      course('FELD 390', { repeatable: true })
    ])
    const terms = ['AU25', 'SP26', 'AU26'].map((code) => term(code))
    let brought = 0
    for (let seed = 1; seed <= 300; seed++) {
      const roll = dice(seed)
      const pick = <T>(list: readonly T[]): T => list[Math.floor(roll() * list.length)]!
      const record = Array.from({ length: 6 }, () =>
        entry(pick(same.courses).code, pick(['A', 'B', 'D', 'F', 'P', 'W']), {
          term: termCode(pick(terms).code),
          origin: roll() < 0.4 ? 'transfer' : 'here'
        })
      )
      const here = record.filter((one) => one.origin === 'here')
      brought += record.length - here.length
      for (const repeats of ['best', 'last', 'all'] as const) {
        const read = (of: typeof record) =>
          COMMON_SCALE.totals(
            gradedAttempts(attemptsOf({ catalog: same, record: of, held: [], planned: [], repeats }, terms))
          )
        expect({ seed, repeats, ...read(record) }).toEqual({ seed, repeats, ...read(here) })
      }
    }
    expect(brought).toBeGreaterThan(300)
  })
  it('leave out grades without points', () => {
    expect(COMMON_SCALE.totals([{ grade: 'P', credits: 3 }])).toEqual({ points: 0, credits: 0 })
  })
})

describe('pace of progress (34 CFR 668.34)', () => {
  it('is what was completed over what was attempted', () => {
    const three = attempts([entry('ENVI 101', 'B'), entry('ENVI 102', 'W'), entry('STAT 101', 'F')])
    expect(paceOfProgress(three)).toEqual({ completed: 3, attempted: 9, pace: 1 / 3 })
  })
  it('counts transferred credits on both sides and courses under way on neither', () => {
    const both = attempts([
      entry('ENVI 101', 'TR', { origin: 'transfer', term: null }),
      entry('ENVI 102', null)
    ])
    expect(paceOfProgress(both)).toEqual({ completed: 3, attempted: 3, pace: 1 })
  })
  it('is not there before anything was attempted', () => {
    expect(paceOfProgress(attempts([]))).toBeUndefined()
  })
})
