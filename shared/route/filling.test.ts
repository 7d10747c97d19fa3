import loadHighs from 'highs'
import { beforeAll, describe, expect, it } from 'vitest'
import { Catalog } from '#core/catalog'
import { auditRecord, compileProgram, type PlannedCourse, type ProgramSpec } from '#core/degree'
import { fill, fillQuestion, type FillWish, type Solve } from '#core/fill'
import { checkRoute, type Aligned, type RouteContext } from '#core/route'
import { course, planned, term } from '../../core/testing/build'
import { filledOf } from './filling'
import { suggestionOf } from './fillingFaults'
import { solverOf } from './solver'
import { becauseText, endedText } from './fillingTexts'

const catalog = new Catalog([
  course('STAT 110'),
  course('STAT 212', { prerequisite: 'STAT 110' }),
  course('STAT 330', { prerequisite: 'STAT 212', offered: { seasons: ['spring'], years: 'every' } }),
  course('STAT 331', { offered: { seasons: ['autumn'], years: 'odd' } }),
  course('ARTS 120'),
  course('ARTS 130'),
  course('MUSI 150', { repeatable: true })
])
const terms = ['AU27', 'SP28', 'SU28', 'AU28', 'SP29'].map((code) => term(code))
const one = (id: string, from: string, amount = 1) =>
  ({ id, title: `Need ${id}`, measure: 'courses', amount, credits: 3 * amount, from }) as const
const spec = (over: Partial<ProgramSpec> = {}): ProgramSpec => ({
  code: 'TEST',
  title: 'Test',
  shortTitle: 'Test',
  kind: 'degree',
  catalogYear: '2025-26',
  credits: 6,
  areas: [
    { id: 'core', title: 'Core', needs: [one('regression', 'STAT 330')] },
    { id: 'arts', title: 'Arts', needs: [one('art', 'ARTS 100+')] }
  ],
  ...over
})

let solve: Solve
beforeAll(async () => {
  solve = solverOf(await loadHighs())
})

function filled(program: ProgramSpec, placed: PlannedCourse[], over: Partial<FillWish> = {}, limits = {}) {
  const compiled = [compileProgram(program)]
  const reread = (plan: readonly PlannedCourse[]) => {
    const { attempts, audits } = auditRecord(
      compiled,
      { catalog, record: [], held: [], planned: plan },
      terms
    )
    const context: RouteContext = {
      catalog,
      terms,
      plannable: new Set(terms.map((one) => one.code)),
      student: { standing: 'freshman', programs: [], tests: {}, graded: [] },
      attempts,
      planned: plan,
      running: new Map(),
      loadMost: () => 9,
      audits,
      ...limits
    }
    return { audits, context }
  }
  const wish = { summers: false, subjects: new Set<string>(), level: 'undergraduate', ...over } as const
  const question = fillQuestion(reread(placed).context, wish)
  return { question, reread, ...filledOf(question, placed, reread, { solve }) }
}
const places = ({ proposal }: ReturnType<typeof filled>) =>
  (proposal?.courses ?? []).map(({ planned: p }) => `${p.course} ${p.term}`)

describe('a proposal', () => {
  it('brings what a course needs before it, in terms in which it runs, and says why', () => {
    const done = filled(spec(), [])
    expect(places(done)).toEqual(expect.arrayContaining(['STAT 110 AU27', 'STAT 212 SP28', 'STAT 330 SP29']))
    const why = new Map(done.proposal!.courses.map((p) => [p.planned.course as string, becauseText(p)]))
    expect(why.get('STAT 212')).toBe('because STAT 330 needs it; the first term in which it may stand')
    expect(why.get('STAT 330')).toContain('for Need regression')
    expect(endedText(done.proposal)).toBe('Finishes in Spring 29; no way is earlier.')
    expect(endedText(done.proposal, 9)).toBe(
      'Finishes in Spring 29; no way is earlier with at most 9 credits a term.'
    )
  })
  it('is legal, with nothing left open', () => {
    const { proposal, reread } = filled(spec(), [])
    const { context } = reread(proposal!.courses.map((p) => p.planned))
    expect(checkRoute(context).filter((finding) => finding.code !== 'outside')).toEqual([])
    expect(proposal!.left).toEqual([])
  })
  it('leaves out what is asked for only by what is left out itself', () => {
    const program = spec({
      areas: [{ id: 'arts', title: 'Arts', needs: [one('art', 'ARTS 120')] }],
      credits: 3
    })
    const { reread } = filled(program, [])
    const there = [planned('ARTS 120', 'AU27')]
    const placed = [planned('STAT 110', 'AU27'), planned('STAT 212', 'SP28')]
    const aligned: Aligned = {
      from: 0,
      placed: placed.map((one) => ({ planned: one, step: 0 })),
      open: [],
      left: []
    }
    expect(suggestionOf(aligned, there, reread).courses).toEqual([])
  })
  it('takes what is placed into account, and leaves it there', () => {
    const done = filled(spec(), [planned('STAT 212', 'SP28'), planned('ARTS 120', 'AU27')])
    expect(places(done).sort()).toEqual(['STAT 110 AU27', 'STAT 330 SP29'])
  })
  it('keeps away from terms spent elsewhere', () => {
    const done = filled(
      spec({ areas: [{ id: 'arts', title: 'Arts', needs: [one('art', 'ARTS 100+', 2)] }] }),
      [],
      {},
      {
        away: new Map([['AU27', 'exchange']])
      }
    )
    expect(places(done).every((place) => !place.endsWith('AU27'))).toBe(true)
  })
  it('has no more terms with too many hours than it has to, and says that this is proved', () => {
    const program = spec({
      areas: [
        { id: 'core', title: 'Core', needs: [one('regression', 'STAT 330')] },
        { id: 'arts', title: 'Arts', needs: [one('art', 'ARTS 100+', 2)] }
      ],
      credits: 9
    })
    // One course a term for six hours: five courses in four terms cannot all keep to that.
    const done = filled(program, [], {}, { hoursMost: () => 6 })
    const findings = checkRoute(done.reread(done.proposal!.courses.map((p) => p.planned)).context)
    expect(findings.filter(({ code }) => code === 'hours')).toHaveLength(1)
    expect(done.proposal).toMatchObject({
      proved: true,
      better: { findings: true, courses: true, laying: true }
    })
  })
  it('says of nothing but the finish that it is proved once a course was kept out of a term', () => {
    const { question } = filled(spec(), [])
    const barred = [
      { term: 0, courses: question.courses.flatMap((c, n) => (c?.code === 'ARTS 120' ? [n] : [])) }
    ]
    let looks = 0
    const answer = fill(question.problem, {
      solve,
      inspect: () => ({ notTogether: [], barred: looks++ ? [] : barred, more: new Map() })
    })
    expect(looks).toBe(2)
    expect(answer).toMatchObject({
      kind: 'filled',
      proved: true,
      better: { findings: false, courses: false, laying: false }
    })
  })
  it('rather takes a subject that is wished for', () => {
    const program = spec({
      areas: [{ id: 'all', title: 'All', needs: [one('any', 'ARTS 120 or STAT 110')] }],
      credits: 3
    })
    expect(places(filled(program, [], { subjects: new Set(['STAT']) }))).toEqual(['STAT 110 AU27'])
    expect(places(filled(program, [], { subjects: new Set(['ARTS']) }))).toEqual(['ARTS 120 AU27'])
  })
  it('names the need that cannot be met, and nothing else', () => {
    const program = spec({
      areas: [
        { id: 'core', title: 'Core', needs: [one('odd', 'STAT 331')] },
        { id: 'arts', title: 'Arts', needs: [one('art', 'ARTS 100+')] }
      ]
    })
    const { proposal } = filled(
      program,
      [],
      { until: terms[1]!.code },
      { away: new Map([['AU27', 'leave']]) }
    )
    expect(proposal!.conflict).toEqual(['Need odd'])
    expect(proposal!.finish).toBeUndefined()
    expect(places({ proposal } as ReturnType<typeof filled>)).toEqual(['ARTS 120 SP28'])
    expect(endedText(proposal)).toBe(
      '“Need odd” cannot be met within these terms. Still open: 1 of 1 course of “Need odd”.'
    )
  })
  it('says of a course that may be taken again that it is filled in once, and not that it cannot be met', () => {
    const program = spec({
      areas: [{ id: 'a', title: 'A', needs: [one('choir', 'MUSI 150', 2)] }],
      credits: 6
    })
    const { proposal } = filled(program, [])
    expect([proposal!.conflict, proposal!.again]).toEqual([[], ['Need choir']])
    expect(endedText(proposal)).toBe(
      '“Need choir” asks for a course to be taken again, and each is filled in once: put it on the route as often as it is needed. Still open: 1 of 2 courses of “Need choir”.'
    )
  })
  it('names two needs that only together cannot be met', () => {
    const program = spec({
      areas: [
        { id: 'a', title: 'One', needs: [one('one', 'ARTS 120 or STAT 331')] },
        { id: 'b', title: 'Two', needs: [one('two', 'ARTS 120')] },
        { id: 'c', title: 'Three', needs: [one('three', 'ARTS 130')] }
      ],
      credits: 9
    })
    const { proposal } = filled(
      program,
      [],
      { until: terms[1]!.code },
      { away: new Map([['AU27', 'leave']]) }
    )
    expect(proposal!.conflict).toEqual(['Need one', 'Need two'])
    expect(endedText(proposal)).toMatch(
      /^“Need one” and “Need two” cannot be met together within these terms\./
    )
  })
  it('reads what is earned anew, and takes whichever branch can be taken sooner', () => {
    const program = spec({
      areas: [
        {
          id: 'either',
          title: 'Either',
          needs: [
            {
              id: 'choice',
              title: 'A choice',
              choose: 1,
              of: [
                { id: 'spring', title: 'Spring', needs: [one('late', 'STAT 330')] },
                { id: 'art', title: 'Art', needs: [one('soon', 'ARTS 120')] }
              ]
            }
          ]
        }
      ],
      credits: 3
    })
    const { proposal } = filled(program, [])
    expect(places({ proposal } as ReturnType<typeof filled>)).toEqual(['ARTS 120 AU27'])
    expect(endedText(proposal)).toBe('Finishes in Autumn 27; no way is earlier.')
  })
})
