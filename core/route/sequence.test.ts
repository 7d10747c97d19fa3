import { describe, expect, it } from 'vitest'
import { Catalog } from '../catalog'
import {
  auditProgram,
  compileProgram,
  attemptsOf,
  type NeedSpec,
  type PlannedCourse,
  type RecordEntry,
  type SlotSpec
} from '../degree'
import { course, entry, planned, term } from '../testing/build'
import { applyChange } from './change'
import { checkRoute } from './checks'
import type { RouteContext } from './context'
import { termResult } from './results'
import { alignSequence } from './sequence'

const catalog = new Catalog([
  course('MATH 100'),
  course('MATH 200', { prerequisite: 'MATH 100' }),
  course('MATH 300', { prerequisite: 'MATH 200', offered: { seasons: ['spring'], years: 'every' } }),
  course('WRIT 100'),
  course('WRIT 110', { exclusive: [] }),
  course('ARTS 100'),
  course('ARTS 200', { offered: { seasons: ['spring'], years: 'every' } })
])
const terms = ['AU26', 'SP27', 'AU27', 'SP28', 'SU28', 'AU28', 'SP29'].map((code) => term(code))
const need = (id: string, amount: number, from: string): NeedSpec => ({
  id,
  title: id,
  measure: 'courses',
  amount,
  credits: amount * 3,
  from
})
const program = compileProgram(
  {
    code: 'TEST',
    title: 'Test',
    shortTitle: 'Test',
    kind: 'degree',
    catalogYear: '2026-27',
    credits: 15,
    areas: [
      { id: 'a', title: 'Math', needs: [need('math', 3, 'MATH *')] },
      { id: 'b', title: 'Writing', needs: [need('writing', 1, 'WRIT *')] },
      { id: 'c', title: 'Arts', needs: [need('arts', 1, 'ARTS *')] }
    ]
  },
  { lists: new Map(), scale: catalog.scale }
)
const SEQUENCE: SlotSpec[][] = [['MATH 100', 'WRIT 100'], ['MATH 200'], ['MATH 300', { need: 'arts' }]]

function contextOf(
  plan: PlannedCourse[],
  record: RecordEntry[],
  over: Partial<RouteContext> = {}
): RouteContext {
  const attempts = attemptsOf({ catalog, record, held: [], planned: plan }, terms)
  return {
    catalog,
    terms,
    plannable: new Set(terms.filter((one) => one.start > '2027-06-01').map((one) => one.code)),
    student: { standing: 'freshman', programs: ['TEST'], tests: {}, graded: [] },
    attempts,
    planned: plan,
    running: new Map(),
    loadMost: () => 18,
    audits: [auditProgram(program, attempts, catalog)],
    ...over
  }
}
const align = (...args: Parameters<typeof contextOf>) => {
  const { from, placed, open, left } = alignSequence(contextOf(...args), SEQUENCE)
  return {
    from,
    placed: placed.map(({ planned: { course: code, term: at }, step }) => `${code} ${at} step ${step}`),
    open: open.map(({ result, term: at, step }) => `${result.need.id} ${at.code} step ${step}`),
    left: left.map(({ course: code, why }) => `${code} ${why?.blocker.code ?? 'no room'}`)
  }
}

describe('a suggested sequence', () => {
  it('is laid over the regular terms to come, step by step, where each course runs', () => {
    expect(align([], [])).toEqual({
      from: 0,
      placed: [
        'MATH 100 AU27 step 0',
        'WRIT 100 AU27 step 0',
        'MATH 200 SP28 step 1',
        'MATH 300 SP29 step 2'
      ],
      open: ['arts AU28 step 2'],
      left: []
    })
  })
  it('begins where the student stands, and leaves out what is there or what others stand for', () => {
    const record = [entry('MATH 100'), entry('WRIT 110')]
    expect(align([], record)).toEqual({
      from: 1,
      placed: ['MATH 200 AU27 step 1', 'MATH 300 SP28 step 2'],
      open: ['arts SP28 step 2'],
      left: []
    })
  })
  it('brings what was missed of an earlier step first', () => {
    const { from, placed } = align([], [entry('MATH 100'), entry('MATH 200', 'F')])
    expect(from).toBe(1)
    expect(placed[0]).toBe('WRIT 100 AU27 step 0')
    expect(placed[1]).toBe('MATH 200 AU27 step 1')
  })
  it('adds only to what is planned, and nothing in a term away', () => {
    const { placed } = align([planned('MATH 100', 'AU27')], [], { away: new Map([['SP28', 'leave']]) })
    expect(placed).toEqual(['WRIT 100 AU27 step 0', 'MATH 200 AU28 step 1', 'MATH 300 SP29 step 2'])
  })
  it('says what has no term: what speaks against the last one, or that there is no room', () => {
    expect(align([], [], { terms: terms.slice(0, 3) }).left).toEqual([
      'MATH 200 prerequisite',
      'MATH 300 notOffered'
    ])
    expect(align([], [], { loadMost: () => 2 }).left).toContain('MATH 100 no room')
  })
  it('makes a route on which no course has a finding', () => {
    const at = contextOf([], [])
    const { placed } = alignSequence(at, SEQUENCE)
    const changes = placed.map((one) => ({ kind: 'add' as const, planned: one.planned }))
    const route = applyChange([], { kind: 'several', changes }, () => true)
    expect(route.ok).toBe(true)
    expect(checkRoute(contextOf(route.ok ? route.courses : [], []))).toEqual([])
  })
})

describe('the result of a term', () => {
  it('is what was earned of what was attempted, and the average by points (common practice: A 4, B 3, F 0)', () => {
    const record = [
      entry('MATH 100', 'A', { credits: 4 }),
      entry('WRIT 100', 'B'),
      entry('ARTS 100', 'F'),
      entry('ARTS 200', null),
      entry('MATH 200', 'A', { term: term('AU27').code })
    ]
    const { attempted, earned, average } = termResult(record, term('AU26').code, catalog)
    expect([attempted, earned]).toEqual([10, 7])
    expect(average).toBeCloseTo((4 * 4 + 3 * 3) / 10)
    expect(termResult([], term('AU26').code, catalog).average).toBeUndefined()
  })
})
