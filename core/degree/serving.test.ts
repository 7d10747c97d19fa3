import { describe, expect, it } from 'vitest'
import { Catalog } from '../catalog'
import { courseCode } from '../ids'
import { course, entry, planned, term } from '../testing/build'
import { auditAll } from './audit'
import { compileProgram } from './compile'
import type { AreaSpec, NeedSpec, ProgramSpec } from './program'
import { servingOf, type Serving } from './serving'
import type { AttemptInput } from './attempt'
import { attemptsOf } from './attemptList'

const catalog = new Catalog([
  course('STAT 101', { equivalents: [courseCode('MATH 110')] }),
  ...['STAT 201', 'STAT 301', 'ARTS 101', 'ENVI 101', 'ENVI 301'].map((code) => course(code)),
  course('MATH 110', { equivalents: [courseCode('STAT 101')] }),
  course('MATH 120', { exclusive: [courseCode('STAT 101')] }),
  course('MUSI 150', { repeatable: true })
])
const terms = ['AU26', 'SP27', 'AU27', 'SP28'].map((code) => term(code))
const need = (id: string, from: string, over: Partial<NeedSpec> = {}): NeedSpec => ({
  id,
  title: id,
  measure: 'courses',
  amount: 1,
  credits: 3,
  from,
  ...over
})
const area = (id: string, needs: NeedSpec[], over: Partial<AreaSpec> = {}): AreaSpec => ({
  id,
  title: id,
  needs,
  ...over
})
const programOf = (areas: AreaSpec[], over: Partial<ProgramSpec> = {}) =>
  compileProgram({
    code: 'TEST',
    title: 'Test',
    shortTitle: 'Test',
    kind: 'degree',
    catalogYear: '2025-26',
    credits: areas
      .filter((one) => !one.shares)
      .flatMap((one) => one.needs)
      .reduce((sum, one) => sum + (one as NeedSpec).credits, 0),
    areas,
    ...over
  })

function ask(
  code: string,
  programs: ReturnType<typeof programOf>[],
  over: Partial<AttemptInput> = {}
): Serving {
  const attempts = attemptsOf({ catalog, record: [], held: [], planned: [], ...over }, terms)
  const audits = auditAll(programs, attempts, catalog)
  return servingOf(catalog.course(code), { audits, attempts, catalog })
}
const places = (serving: Serving) =>
  serving.kind === 'counts' ? serving.places.map((place) => place.map((one) => one.need.id)) : serving.kind

describe('what a course would do', () => {
  const stats = programOf([area('stats', [need('any', 'STAT *'), need('upper', 'STAT 200+')])])
  it('is to count for one need of a program, where two would take it', () => {
    expect(places(ask('STAT 201', [stats]))).toEqual([['any', 'upper']])
    expect(places(ask('STAT 101', [stats]))).toEqual([['any']])
  })
  it('is said of a free choice only where nothing else takes it', () => {
    const free = programOf([
      area('stats', [need('any', 'STAT *')]),
      area('free', [need('chosen', 'any')], { free: true })
    ])
    expect(places(ask('STAT 201', [free]))).toEqual([['any']])
    expect(places(ask('ARTS 101', [free]))).toEqual([['chosen']])
  })
  it('is to count for a minor at once, as far as that may share', () => {
    const minor = (mayShare?: number) =>
      programOf([area('m', [need('minor', 'STAT *', { amount: 2, credits: 6 })])], {
        code: 'MIN',
        kind: 'minor',
        ...(mayShare === undefined ? {} : { mayShare })
      })
    expect(places(ask('STAT 301', [stats, minor()]))).toEqual([['any', 'upper'], ['minor']])
    expect(places(ask('STAT 301', [stats, minor(0)]))).toEqual([['any', 'upper', 'minor']])
    // Three of three credits are shared already.
    const there = { record: [entry('STAT 101')] }
    expect(places(ask('STAT 301', [stats, minor(3)], there))).toEqual([['upper', 'minor']])
    expect(places(ask('STAT 301', [stats, minor(6)], there))).toEqual([['upper'], ['minor']])
  })
  it('is to count in a sharing area at once, only with the areas that it shares with', () => {
    const overlay = (partner: string) =>
      programOf([
        area('stats', [need('any', 'STAT *')]),
        area('envi', [need('field', 'ENVI *')]),
        area('over', [need('overlay', 'STAT * or ENVI *')], { shares: { with: [partner], credits: 3 } })
      ])
    expect(places(ask('STAT 201', [overlay('stats')]))).toEqual([['any'], ['overlay']])
    expect(places(ask('STAT 201', [overlay('envi')]))).toEqual([['any', 'overlay']])
  })
  it('is nothing where nothing accepts it, and where all of it is full', () => {
    expect(ask('ARTS 101', [stats]).kind).toBe('nothing')
    const one = programOf([area('stats', [need('any', 'STAT *')])])
    expect(ask('STAT 201', [one], { record: [entry('STAT 101')] })).toMatchObject({
      kind: 'full',
      needs: [{ need: { id: 'any' } }]
    })
  })
  it('hangs on another course that would have to move, and says where to', () => {
    const two = programOf([
      area('a', [need('any', 'STAT 101, 201, 301')]),
      area('b', [need('other', 'STAT 301 or ENVI 301')])
    ])
    expect(ask('STAT 101', [two], { record: [entry('STAT 301')] })).toMatchObject({
      kind: 'ifMoved',
      need: { need: { id: 'any' } },
      moves: { course: 'STAT 301' },
      to: { need: { id: 'other' } }
    })
  })
})

describe('what is there already', () => {
  const stats = programOf([area('stats', [need('any', 'STAT * or MATH *', { amount: 2, credits: 6 })])])
  it.each([
    ['earned', { record: [entry('STAT 101')] }],
    ['under way', { record: [entry('STAT 101', null, { term: terms[1]!.code })] }],
    ['planned', { planned: [planned('STAT 101', 'AU27')] }]
  ])('never claims another need: %s', (_, over) => {
    expect(ask('STAT 101', [stats], over)).toMatchObject({
      kind: 'counted',
      needs: [{ need: { id: 'any' } }]
    })
  })
  it('is repeated by a course that counts as it, or beside which it gives no credit', () => {
    const over = { record: [entry('STAT 101')] }
    for (const code of ['MATH 110', 'MATH 120'])
      expect(ask(code, [stats], over)).toMatchObject({ kind: 'repeats', by: { course: 'STAT 101' } })
  })
  it('counts once more where it may be repeated for credit', () => {
    const music = programOf([area('m', [need('music', 'MUSI *', { amount: 2, credits: 6 })])])
    expect(places(ask('MUSI 150', [music], { record: [entry('MUSI 150')] }))).toEqual([['music']])
  })
})
