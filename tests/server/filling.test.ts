/** Filling a whole degree of the demo, as the worker of the page is asked to. */
import loadHighs from 'highs'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Solve } from '#core/fill'
import { alignSequence, checkRoute, termLoad } from '#core/route'
import { fillRoute, type FillCall, type FillChoice } from '#shared/route/filling'
import { ownLoad } from '#shared/route/load'
import type { CatalogView } from '#shared/catalog/responses'
import type { StudentView } from '#shared/record/responses'
import { readStudent } from '#shared/reading'
import { solverOf } from '#shared/route/solver'
import { readCatalog } from '#server/features/catalog/catalog'
import { readRoutes } from '#server/features/route/routes'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { at, demoWorld, idOf, person, viewOf, type World } from './world'

let world: World
let catalog: CatalogView
let offers: FillCall['offers']
let student: StudentView
let now: number
let solve: Solve
beforeAll(async () => {
  solve = solverOf(await loadHighs())
  world = await demoWorld('filling')
  catalog = await readCatalog(world.db)
  offers = Object.fromEntries(
    [...world.catalogContext.offers].map(([term, { sections }]) => [term, sections])
  )
  now = (await at(world)).now
  const maren = await person(world.db, 'Maren Tolliver')
  const [studentRecord] = await readStudentRecords(world.db, [idOf(maren)], 'self')
  student = { ...viewOf(studentRecord!), routes: await readRoutes(world.db, idOf(maren)) }
})
afterAll(() => world.close())

const ANY: FillChoice = {
  summers: false,
  starred: false,
  subjects: [],
  how: 'any',
  campus: null,
  until: null
}
const fill = (over: Partial<FillChoice> = {}, as = student) => {
  const { proposal, ended } = fillRoute(
    { catalog, offers, student: as, choice: { ...ANY, ...over }, now },
    { solve }
  )
  if (!proposal) throw new Error(ended)
  return proposal
}
const codes = (over?: Partial<FillChoice>, as?: StudentView) =>
  fill(over, as).courses.map((one) => one.planned.course)

describe('ways in which courses are held', () => {
  it('are those of their sections: online, from five in the evening on, by campus', () => {
    const ways = Object.values(catalog.heldAs)
    expect(ways.some((one) => one.online)).toBe(true)
    expect(ways.some((one) => one.evening)).toBe(true)
    expect(ways.every((one) => one.campuses.length > 0)).toBe(true)
    expect(new Set(ways.flatMap((one) => one.campuses))).toEqual(new Set(['HILL', 'HARBOUR', 'ONLINE']))
  })
})

describe('an empty record', () => {
  it('is filled to a degree and a certificate in four terms of the usual load, which is proved the earliest', () => {
    const { courses, finish, proved, left } = fill()
    expect([finish?.code, proved, left]).toEqual(['SP29', true, []])
    const planned = courses.map((one) => one.planned)
    const reading = readStudent(
      { ...student, route: { ...student.route, courses: planned } },
      world.catalogContext,
      now
    )
    expect(checkRoute(reading.context)).toEqual([])
    expect(reading.finish?.code).toBe('SP29')
    expect(reading.audits.map((audit) => audit.amounts.needed)).toEqual([0, 0])
    const load = ownLoad(student, world.catalogContext)
    expect(load).toBe(17)
    for (const term of world.catalogContext.terms)
      expect(termLoad(reading.attempts, term.code)).toBeLessThanOrEqual(load)
    // Foundations and writing first.
    const at = new Map(planned.map((one) => [one.course as string, one.term as string]))
    expect(at.get('GEOS 101')).toBe('AU27')
    expect(['AU27', 'SP28']).toContain(at.get('WRIT 101'))
  })
  it('takes the four usual terms by the sequence that its program suggests, and leaves nothing unplaced', () => {
    const { context } = readStudent(student, world.catalogContext, now)
    const { placed, open, left, from } = alignSequence(context, student.programs[0]!.spec.suggested!)
    expect([from, left]).toEqual([0, []])
    const used = new Set<string>([
      ...placed.map((one) => one.planned.term),
      ...open.map((one) => one.term.code)
    ])
    expect([...used].sort()).toEqual(['AU27', 'AU28', 'SP28', 'SP29'])
  })
  it('is filled with more of what is rather held online, or rather on a campus', () => {
    const unlike = (list: string[], fits: (way: CatalogView['heldAs'][string]) => boolean) =>
      list.filter((code) => !(catalog.heldAs[code] && fits(catalog.heldAs[code]))).length
    const online = (way: { online: boolean }) => way.online
    expect(unlike(codes({ how: 'online' }), online)).toBeLessThan(unlike(codes(), online))
    const hill = (way: { campuses: string[] }) => way.campuses.includes('HILL')
    expect(unlike(codes({ campus: 'HILL' }), hill)).toBeLessThanOrEqual(unlike(codes(), hill))
  })
  it('is filled with starred courses where they would do as well', () => {
    const plain = codes()
    // Courses on people and places without a prerequisite that would not be taken otherwise.
    const rather = world.catalogContext.catalog.courses.filter(
      (one) =>
        one.categories.includes('place') &&
        one.credits === 3 &&
        !one.prerequisite &&
        one.offered.seasons.length > 1 &&
        !plain.includes(one.code)
    )
    const starred = rather.map(({ code }) => ({ course: code, starred: true, lookedAt: null, note: null }))
    expect(starred.length).toBeGreaterThan(1)
    const has = (list: string[]) => starred.filter((one) => list.includes(one.course)).length
    const as = { ...student, marks: starred }
    expect(has(codes({}, as))).toBe(0)
    expect(has(codes({ starred: true }, as))).toBeGreaterThan(0)
  })
  it('says what is needed no more once it is filled', () => {
    const planned = fill().courses.map((one) => one.planned)
    const full = { ...student, route: { ...student.route, courses: planned } }
    expect(fillRoute({ catalog, offers, student: full, choice: ANY, now }, { solve })).toEqual({
      proposal: undefined,
      ended: 'Nothing is needed any more; there is nothing to fill in.'
    })
  })
  it('says which needs do not fit before a term that is too soon', () => {
    const { proposal, ended } = fillRoute(
      {
        catalog,
        offers,
        student,
        choice: { ...ANY, until: student.openings.find((one) => one.term === 'AU27')!.term },
        now
      },
      { solve }
    )
    expect(proposal?.finish).toBeUndefined()
    expect(proposal?.courses.length).toBeGreaterThan(3)
    expect(ended).toMatch(/ cannot be met (together )?within these terms\. Still open: \d+ of \d+ /)
  })
})
