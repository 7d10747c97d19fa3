import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Catalog, type Course } from '../catalog'
import { auditAll, compileProgram, attemptsOf, type NeedSpec, type RecordEntry } from '../degree'
import { courseCode, type CourseCode } from '../ids'
import { course, entry, planned, term } from '../testing/build'
import { factorsOf, graphOf } from './factors'
import { earliestFinish } from './finish'

const graph = (edges: Record<string, string[]>) =>
  new Map(Object.entries(edges).map(([code, next]) => [courseCode(code), next.map((one) => courseCode(one))]))

describe('delay and blocking factors', () => {
  // Definitions as in Heileman, Abdallah, Slim and Hickman, Curricular Analytics (2018), from memory:
  // blocking counts the courses that can be reached, delay the courses on the longest path through one.
  const found = factorsOf(
    graph({
      'MATH 101': ['MATH 102', 'PHYS 101'],
      'MATH 102': ['MATH 201'],
      'PHYS 101': ['PHYS 102'],
      'PHYS 102': [],
      'MATH 201': [],
      'ARTS 101': []
    })
  )
  const of = (code: string) => found.get(courseCode(code))
  it('count what waits for a course, and the longest chain through it', () => {
    expect(of('MATH 101')).toEqual({ blocking: 4, delay: 3 })
    expect(of('MATH 102')).toEqual({ blocking: 1, delay: 3 })
    expect(of('MATH 201')).toEqual({ blocking: 0, delay: 3 })
    expect(of('ARTS 101')).toEqual({ blocking: 0, delay: 1 })
  })
  it('add up to the complexity of the curriculum', () => {
    const sum = [...found.values()].reduce((total, one) => total + one.blocking + one.delay, 0)
    // blocking 4 + 1 + 1, delay 3 x 5 + 1
    expect(sum).toBe(22)
  })
  it('count a course that is reached on two ways once', () => {
    const diamond = factorsOf(
      graph({ 'AA 1': ['AA 2', 'AA 3'], 'AA 2': ['AA 4'], 'AA 3': ['AA 4'], 'AA 4': [] })
    )
    expect(diamond.get(courseCode('AA 1'))).toEqual({ blocking: 3, delay: 3 })
  })
  it('name a circle', () => {
    expect(() => factorsOf(graph({ 'AA 1': ['AA 2'], 'AA 2': ['AA 1'] }))).toThrow(
      'prerequisites go round: AA 1 needs AA 2'
    )
  })
  it('draw no edge for courses taken together', () => {
    const catalog = new Catalog([
      course('HYDR 331', { prerequisite: 'with HYDR 332' }),
      course('HYDR 332', { prerequisite: 'with HYDR 331 and HYDR 205' }),
      course('HYDR 205')
    ])
    const drawn = graphOf(
      catalog.courses.map((one) => one.code),
      catalog
    )
    expect([...drawn.values()].flat()).toEqual(['HYDR 332'])
  })
})

describe('the earliest finish', () => {
  const ahead = ['AU27', 'SP28', 'AU28', 'SP29', 'AU29', 'SP30'].map((code) => term(code))
  const finish = (
    courses: Course[],
    needs: (Partial<NeedSpec> & { from: string })[],
    record: RecordEntry[] = [],
    load = 16,
    plan: ReturnType<typeof planned>[] = []
  ) => {
    const catalog = new Catalog(courses)
    const full = needs.map((need, i): NeedSpec => {
      const amount = need.amount ?? 1
      const measure = need.measure ?? 'courses'
      return {
        id: `n${i}`,
        title: `need ${i}`,
        measure,
        amount,
        credits: measure === 'credits' ? amount : 3 * amount,
        ...need
      }
    })
    const program = compileProgram({
      code: 'TEST',
      title: 'Test',
      shortTitle: 'Test',
      kind: 'degree',
      catalogYear: '2025-26',
      credits: full.reduce((sum, need) => sum + need.credits, 0),
      areas: [{ id: 'a', title: 'A', needs: full }]
    })
    const attempts = attemptsOf({ catalog, record, held: [], planned: plan }, [term('SP27'), ...ahead])
    return earliestFinish({
      audits: auditAll([program], attempts, catalog),
      attempts,
      catalog,
      ahead,
      running: new Map(),
      standing: 'freshman',
      load: () => load
    })
  }
  const autumn = { offered: { seasons: ['autumn' as const], years: 'every' as const } }

  it('is done when nothing is needed', () => {
    expect(finish([course('ENVI 101')], [{ from: 'ENVI 101' }], [entry('ENVI 101')])).toEqual({
      kind: 'done'
    })
  })
  it('follows the chain through its seasons, and tells it', () => {
    const courses = [
      course('ENVI 101', autumn),
      course('ENVI 201', { prerequisite: 'ENVI 101' }),
      course('ENVI 301', { prerequisite: 'ENVI 201', ...autumn })
    ]
    expect(finish(courses, [{ from: 'ENVI 301' }])).toMatchObject({
      kind: 'chain',
      term: { code: 'AU28' },
      chain: [
        { course: 'ENVI 101', term: { code: 'AU27' } },
        { course: 'ENVI 201', term: { code: 'SP28' } },
        { course: 'ENVI 301', term: { code: 'AU28' } }
      ]
    })
  })
  it('waits for an odd year', () => {
    const odd = course('ENVI 101', { offered: { seasons: ['spring'], years: 'odd' } })
    expect(finish([odd], [{ from: 'ENVI 101' }])).toMatchObject({ term: { code: 'SP29' } })
  })
  it('takes the shorter way of a choice and the longer one of a list', () => {
    const base = [course('ENVI 101'), course('ENVI 102', { prerequisite: 'ENVI 101' })]
    const any = course('ENVI 201', { prerequisite: 'ENVI 101 or ENVI 102' })
    const all = course('ENVI 202', { prerequisite: 'ENVI 101 and ENVI 102' })
    expect(finish([...base, any], [{ from: 'ENVI 201' }])).toMatchObject({ term: { code: 'SP28' } })
    expect(finish([...base, all], [{ from: 'ENVI 202' }])).toMatchObject({ term: { code: 'AU28' } })
  })
  it('needs as many terms as the credits fill', () => {
    const many = Array.from({ length: 20 }, (_, i) => course(`ENVI ${101 + i}`))
    expect(finish(many, [{ from: 'ENVI *', measure: 'credits', amount: 40 }], [], 15)).toEqual({
      kind: 'credits',
      term: ahead[2],
      credits: 40
    })
  })
  it('waits for a standing that credits give', () => {
    const courses = [course('ENVI 401', { prerequisite: '30 credits' }), course('ENVI 101')]
    expect(finish(courses, [{ from: 'ENVI 401' }], [], 12)).toMatchObject({ term: { code: 'SP29' } })
  })
  it('counts a course under way as there, and a planned one as still to be taken', () => {
    const courses = [course('ENVI 101'), course('ENVI 201', { prerequisite: 'ENVI 101' })]
    const running = [entry('ENVI 101', null, { term: term('SP27').code })]
    expect(finish(courses, [{ from: 'ENVI 201' }], running)).toMatchObject({ term: { code: 'AU27' } })
    expect(finish(courses, [{ from: 'ENVI 201' }], [], 16, [planned('ENVI 201', 'SP30')])).toMatchObject({
      term: { code: 'SP28' }
    })
  })
  it('takes what may be repeated as often as a need asks for it, also where it is there already', () => {
    const again = course('CONV 2', { repeatable: true, ...autumn })
    const inCourses = [{ from: 'CONV 2', amount: 4 }]
    expect(finish([again], inCourses)).toMatchObject({ term: { code: 'AU27' } })
    const twice = ['AU25', 'SP26'].map((at) => entry('CONV 2', 'B', { term: term(at).code }))
    expect(finish([again], inCourses, twice)).toMatchObject({ term: { code: 'AU27' } })
    const inCredits = [{ from: 'CONV 2', measure: 'credits' as const, amount: 12 }]
    expect(finish([again], inCredits, twice)).toMatchObject({ term: { code: 'AU27' } })
    expect(finish([course('CONV 2')], inCourses)).toMatchObject({ kind: 'never' })
  })
  it('says when no known term will do', () => {
    const never = course('ENVI 101', { offered: { seasons: [], years: 'every' } })
    expect(finish([never], [{ from: 'ENVI 101' }])).toMatchObject({ kind: 'never' })
  })
  it('is never later than a plan that keeps every rule (200 cases, seed 20270501)', () => {
    let chains = 0
    fc.assert(
      fc.property(
        fc.array(fc.record({ before: fc.nat(20), autumn: fc.boolean(), spring: fc.boolean() }), {
          minLength: 2,
          maxLength: 8
        }),
        (shapes) => {
          const courses = shapes.map(({ before, autumn: a, spring }, i) =>
            course(`ENVI ${101 + i}`, {
              prerequisite: i && before % 3 ? `ENVI ${101 + (before % i)}` : '',
              offered: {
                seasons: [
                  ...(a || !spring ? ['autumn' as const] : []),
                  ...(spring ? ['spring' as const] : [])
                ],
                years: 'every'
              }
            })
          )
          // A plan by hand: each course in the first term in which it runs after what it needs.
          const at = new Map<CourseCode, number>()
          for (const one of courses) {
            const from = one.prerequisite ? at.get(courseCode(one.prerequisite))! + 1 : 0
            let i = from
            while (i < ahead.length && !one.offered.seasons.includes(ahead[i]!.season)) i++
            at.set(one.code, i)
          }
          const last = Math.max(...at.values())
          const found = finish(
            courses,
            courses.map((one) => ({ from: one.code })),
            [],
            400
          )
          if (last >= ahead.length) expect(found.kind).toBe('never')
          else {
            expect(found).toMatchObject({ kind: 'chain', term: { code: ahead[last]!.code } })
            if (found.kind === 'chain' && found.chain.length > 2) chains++
          }
        }
      ),
      { seed: 20270501, numRuns: 200 }
    )
    expect(chains).toBeGreaterThan(20)
  })
})
