/** Numbers that agree: for every student of the demo each figure is the same wherever it is shown. */
import loadHighs from 'highs'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { checkRoute, termLoad } from '#core/route'
import { auditFile } from '#shared/degree/auditFile'
import { programFigures, programText, routeFigures } from '#shared/degree/figures'
import { fillRoute, type FillCall } from '#shared/route/filling'
import { ownLoad } from '#shared/route/load'
import type { StudentRecord } from '#shared/record/responses'
import { degreeState } from '#shared/today/placeStates'
import { readStudent, type Reading } from '#shared/reading'
import { solverOf } from '#shared/route/solver'
import { readDesk } from '#server/features/advising/desk'
import { readCatalog } from '#server/features/catalog/catalog'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { LONG } from '../long'
import { at, demoWorld, person, viewOf, type World } from './world'

let world: World
let now: number
let students: { studentRecord: StudentRecord; reading: Reading }[]
beforeAll(async () => {
  world = await demoWorld('agreement')
  now = (await at(world)).now
  const ids = Array.from({ length: 317 }, (_, i) => i + 1)
  const studentRecords = await readStudentRecords(world.db, ids, 'self')
  students = studentRecords.map((studentRecord) => ({
    studentRecord,
    reading: readStudent(studentRecord, world.catalogContext, now)
  }))
})
afterAll(() => world.close())

describe('figures', () => {
  it('add up to what the program asks for, and to what is said to be beyond it', () => {
    let beyond = 0
    for (const { studentRecord, reading } of students)
      for (const one of routeFigures(reading).programs) {
        const parts = one.earned + one.gradesDue + one.underWay + one.ahead + one.needed
        expect({ of: studentRecord.student.name, program: one.code, parts }).toEqual({
          of: studentRecord.student.name,
          program: one.code,
          parts: one.credits + one.beyond
        })
        expect(programText(one).includes('beyond')).toBe(one.beyond > 0)
        if (one.beyond) beyond++
      }
    expect(beyond).toBeGreaterThan(0)
  })

  it('are those of the file that the commands and the export write', () => {
    for (const { studentRecord, reading } of students) {
      const file = auditFile(reading.audits, reading.attempts, studentRecord.student.name)
      file.programs.forEach(({ amounts, code, credits }, i) => {
        const one = programFigures(reading.audits[i]!)
        expect({ code, credits, ...amounts }).toEqual({
          code: one.code,
          credits: one.credits,
          earned: one.earned,
          gradesDue: one.gradesDue,
          underWay: one.underWay,
          registered: amounts.registered,
          planned: one.ahead - amounts.registered,
          needed: one.needed
        })
      })
    }
  })

  it('are reached by the climb, and said under Degree', () => {
    for (const { studentRecord, reading } of students) {
      const [main] = routeFigures(reading).programs
      if (!main) continue
      const reached = reading.climb.points.at(-1)?.reached ?? reading.climb.start
      expect({ of: studentRecord.student.name, reached }).toEqual({
        of: studentRecord.student.name,
        reached: main.earned + main.gradesDue + main.underWay + main.ahead
      })
      expect(degreeState([main])).toContain(`${main.earned} of ${main.credits}`)
    }
  })

  it('are those of the desk', async () => {
    let seen = 0
    for (const name of ['Orla Denholt', 'Casimir Boyle']) {
      const desk = await readDesk(world.db, await person(world.db, name), world.catalogContext, now)
      for (const row of desk.rows) {
        const found = students.find(({ studentRecord }) => studentRecord.student.id === row.id)!
        const figures = routeFigures(found.reading)
        const needed = figures.programs.reduce((sum, one) => sum + one.needed, 0)
        expect({
          name: row.name,
          findings: row.findings,
          outside: row.outside,
          needed: row.needed,
          planned: row.planned,
          climb: row.climb.points.at(-1)?.reached ?? 0
        }).toEqual({
          name: found.studentRecord.student.name,
          findings: figures.findings,
          outside: figures.outside,
          needed,
          planned: found.studentRecord.route.courses.filter((one) => one.term === desk.term).length,
          climb: found.reading.climb.points.at(-1)?.reached ?? 0
        })
        seen++
      }
    }
    expect(seen).toBeGreaterThan(20)
  })
})

it(
  'a filled route finishes when it was said to, keeps to the load and to the checks, for every student',
  {
    timeout: 1_200_000
  },
  async () => {
    const solve = solverOf(await loadHighs())
    const catalog = await readCatalog(world.db)
    const offers: FillCall['offers'] = Object.fromEntries(
      [...world.catalogContext.offers].map(([term, { sections }]) => [term, sections])
    )
    const choice = {
      summers: false,
      starred: false,
      subjects: [],
      how: 'any',
      campus: null,
      until: null
    } as const
    let filled = 0
    // Every fortieth student by default.
    for (const { studentRecord, reading } of students.filter((_, i) => LONG || i % 40 === 2)) {
      const student = viewOf(studentRecord)
      const { proposal, ended } = fillRoute({ catalog, offers, student, choice, now }, { solve })
      if (!proposal) continue
      const news = proposal.courses.map((one) => one.planned)
      const route = { ...student.route, courses: [...student.route.courses, ...news] }
      const after = readStudent({ ...student, route }, world.catalogContext, now)
      expect({ of: studentRecord.student.name, finish: proposal.finish?.code }).toEqual({
        of: studentRecord.student.name,
        finish: after.finish?.code
      })
      expect(ended.includes('no way is earlier')).toBe(proposal.proved)
      const known = new Set(reading.findings.map((one) => JSON.stringify({ ...one, ways: [] })))
      const hard = checkRoute(after.context).filter(
        (one) => !['outside', 'late'].includes(one.code) && !known.has(JSON.stringify({ ...one, ways: [] }))
      )
      expect({ of: studentRecord.student.name, hard }).toEqual({ of: studentRecord.student.name, hard: [] })
      const load = ownLoad(student, world.catalogContext)
      if (!ended.startsWith('With '))
        for (const term of new Set(news.map((one) => one.term)))
          expect(termLoad(after.attempts, term)).toBeLessThanOrEqual(load)
      const again = fillRoute({ catalog, offers, student: { ...student, route }, choice, now }, { solve })
      expect(again.proposal?.courses ?? []).toEqual([])
      filled++
    }
    expect(filled).toBeGreaterThan(3)
  }
)
