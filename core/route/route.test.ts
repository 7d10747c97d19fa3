import { describe, expect, it } from 'vitest'
import { Catalog } from '../catalog'
import { auditProgram, takingsOf, type PlannedCourse, type Program, type RecordEntry } from '../degree'
import type { Finding, RouteChange } from '../findings'
import { courseCode, termCode } from '../ids'
import { course, entry, planned, program, term } from '../testing/build'
import { applyChange, inverse } from './change'
import { checkRoute, obstacles, termLoad, type RouteContext } from './checks'
import { climbOf } from './climb'

const catalog = new Catalog([
  course('STAT 110'),
  course('STAT 212', { prerequisite: 'STAT 110 (C)' }),
  course('STAT 330', { prerequisite: 'STAT 212' }),
  course('ENDA 410', { prerequisite: 'STAT 330 and standing junior' }),
  course('HYDR 331', { prerequisite: 'with HYDR 332', offered: { seasons: ['autumn'], years: 'every' } }),
  course('HYDR 332', { offered: { seasons: ['autumn'], years: 'every' } }),
  course('FELD 390', { offered: { seasons: ['summer'], years: 'every' } }),
  course('ARTS 120', { credits: 16 })
])
const terms = ['AU26', 'SP27', 'SU27', 'AU27', 'SP28', 'SU28', 'AU28', 'SP29'].map((code) => term(code))
const anything = program({ from: 'any', measure: 'credits', amount: 120 })

function context(
  plan: PlannedCourse[],
  record: RecordEntry[] = [],
  over: Partial<RouteContext> = {},
  p: Program = anything
) {
  const takings = takingsOf({ catalog, record, held: [], planned: plan }, terms)
  return {
    catalog,
    terms,
    today: '2027-04-09',
    student: { standing: 'sophomore', programs: ['TEST'], tests: {} },
    takings,
    planned: plan,
    running: new Map(),
    loadMost: () => 18,
    audits: [auditProgram(p, takings, catalog)],
    ...over
  } satisfies RouteContext
}
const check = (...args: Parameters<typeof context>) => checkRoute(context(...args))
const all = (term: string) => termCode(term).length > 0

/** The findings after taking a way out. */
function after(plan: PlannedCourse[], record: RecordEntry[], way: RouteChange): Finding[] {
  const changed = applyChange(plan, way, all)
  if (!changed.ok) throw new Error(changed.fault)
  return check(changed.courses, record)
}

describe('changes of a route', () => {
  const plan = [planned('STAT 110', 'AU27')]
  const changes: RouteChange[] = [
    { kind: 'add', planned: planned('STAT 212', 'SP28') },
    { kind: 'remove', planned: plan[0]! },
    { kind: 'move', course: courseCode('STAT 110'), from: termCode('AU27'), to: termCode('SP28') }
  ]
  it.each(changes)('are taken back by their inverse: $kind', (change) => {
    const there = applyChange(plan, change, all)
    const back = there.ok && applyChange(there.courses, inverse(change), all)
    expect(back).toEqual({ ok: true, courses: plan })
  })
  it('are refused in a closed term, before anything else', () => {
    expect(applyChange(plan, changes[2]!, (t) => t !== 'AU27')).toEqual({ ok: false, fault: 'termClosed' })
  })
  it('do not place a course twice in a term, nor take out what is not there', () => {
    expect(applyChange(plan, { kind: 'add', planned: plan[0]! }, all)).toEqual({
      ok: false,
      fault: 'alreadyInTerm'
    })
    expect(applyChange([], changes[1]!, all)).toEqual({ ok: false, fault: 'notInTerm' })
    expect(applyChange([], changes[2]!, all)).toEqual({ ok: false, fault: 'notInTerm' })
  })
})

describe('checks of a route', () => {
  it('find nothing wrong with a legal one', () => {
    expect(check([planned('STAT 110', 'AU27'), planned('STAT 212', 'SP28')])).toEqual([])
  })
  it('want a prerequisite before, not in the same term', () => {
    const found = check([planned('STAT 110', 'AU27'), planned('STAT 212', 'AU27')])
    expect(found).toMatchObject([
      { code: 'prerequisite', course: 'STAT 212', missing: [{ course: 'STAT 110' }] }
    ])
  })
  it('take what is under way as passed by then', () => {
    const record = [entry('STAT 110', null, { term: termCode('SP27') })]
    expect(check([planned('STAT 212', 'AU27')], record)).toEqual([])
  })
  it('want the grade', () => {
    expect(check([planned('STAT 212', 'AU27')], [entry('STAT 110', 'D')])).toMatchObject([
      { code: 'prerequisite' }
    ])
  })
  it('count credits of earlier terms toward standing', () => {
    const record = [entry('STAT 330', 'B', { credits: 60 })]
    const student = { standing: 'freshman' as const, programs: [], tests: {} }
    expect(check([planned('ENDA 410', 'AU27')], record, { student })).toEqual([])
  })
  it('know the season, and the sections once they are published', () => {
    expect(check([planned('FELD 390', 'AU27')])).toMatchObject([{ code: 'notOffered', known: 'pattern' }])
    const published = terms.map((t) => (t.code === 'AU27' ? { ...t, published: true } : t))
    const running = new Map([['AU27', new Set<string>()]])
    const found = check([planned('STAT 110', 'AU27')], [], { terms: published, running })
    expect(found).toMatchObject([{ code: 'notOffered', known: 'sections' }])
  })
  it('ask for a corequisite in the same term', () => {
    expect(check([planned('HYDR 331', 'AU27')])).toMatchObject([{ code: 'corequisite' }])
    expect(check([planned('HYDR 331', 'AU27'), planned('HYDR 332', 'AU27')])).toEqual([])
  })
  it('tell what is done already and what counts nowhere', () => {
    expect(check([planned('STAT 110', 'AU27')], [entry('STAT 110', 'C')])).toMatchObject([
      { code: 'alreadyThere' }
    ])
    const only = program({ from: 'STAT 110' })
    expect(check([planned('FELD 390', 'SU28')], [], {}, only)).toMatchObject([
      { code: 'outside', why: 'notAccepted' }
    ])
  })
  it('compare the load of a term with the limit', () => {
    const plan = [planned('ARTS 120', 'AU27', { credits: 16 }), planned('STAT 110', 'AU27')]
    const found = check(plan)
    expect(found).toMatchObject([{ code: 'load', credits: 19, most: 18 }])
    expect(termLoad(context(plan).takings, termCode('AU27'))).toBe(19)
  })
  it('offer only ways that settle the finding', () => {
    const cases: [PlannedCourse[], RecordEntry[]][] = [
      [[planned('STAT 212', 'SP28')], []],
      [[planned('STAT 110', 'SP28'), planned('STAT 212', 'AU27')], []],
      [[planned('STAT 330', 'AU28'), planned('STAT 110', 'AU27')], []],
      [[planned('HYDR 331', 'AU27')], []],
      [[planned('FELD 390', 'AU27')], []],
      [[planned('STAT 110', 'AU27')], [entry('STAT 110', 'C')]],
      [[planned('ARTS 120', 'AU27', { credits: 16 }), planned('STAT 110', 'AU27')], []]
    ]
    let tried = 0
    for (const [plan, record] of cases) {
      for (const finding of check(plan, record)) {
        expect(finding.ways.length).toBeGreaterThan(0)
        for (const way of finding.ways) {
          tried++
          const left = after(plan, record, way)
          const same = left.filter(
            (f) =>
              f.code === finding.code &&
              ('course' in f ? f.course : '') === ('course' in finding ? finding.course : '')
          )
          expect(same).toEqual([])
        }
      }
    }
    expect(tried).toBeGreaterThan(12)
  })
  it('name every obstacle of a place, and the past', () => {
    expect(obstacles(context([]), courseCode('STAT 212'), terms[0]!)).toEqual([{ code: 'past' }])
    expect(obstacles(context([]), courseCode('HYDR 331'), terms[4]!).map((o) => o.code)).toEqual([
      'notOffered',
      'corequisite'
    ])
  })
})

describe('the climb', () => {
  const list = takingsOf(
    {
      catalog,
      record: [entry('STAT 110', 'B'), entry('STAT 212', null, { term: termCode('SP27') })],
      held: [],
      planned: [planned('STAT 330', 'AU27')]
    },
    terms
  ).counted
  it('sums credits by term and leaves out an empty summer', () => {
    const climb = climbOf(list, terms, 9)
    expect(climb.points.map((p) => [p.term.code, p.reached, p.firmness])).toEqual([
      ['AU26', 3, 'earned'],
      ['SP27', 6, 'underWay'],
      ['AU27', 9, 'ahead']
    ])
    expect(climb.finish?.code).toBe('AU27')
  })
  it('has no finish short of the goal and no points without courses', () => {
    expect(climbOf(list, terms, 10).finish).toBeUndefined()
    expect(climbOf([], terms, 10).points).toEqual([])
  })
})
