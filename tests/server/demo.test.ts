import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { compileProgram, takes } from '#core/degree'
import { coursesIn, parseRule } from '#core/requisites'
import { listsFor } from '#shared/catalog/context'
import { readStudent, type Reading } from '#shared/reading'
import type { StudentRecord } from '#shared/record/responses'
import { catalog, courses, lists, programs } from '../../demo/catalog'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { demoWorld, idOf, person, type World } from './world'

describe('the demo catalog', () => {
  it('asks for no course that it does not have', () => {
    const named = courses.flatMap((course) => coursesIn(parseRule(course.prerequisite)))
    expect(named.length).toBeGreaterThan(80)
    expect(named.filter((code) => !catalog.maybeCourse(code))).toEqual([])
  })
  it('has no circle of prerequisites; corequisites of each other are none', () => {
    const before = new Map(
      courses.map((course) => {
        const rule = parseRule(course.prerequisite)
        const together = coursesIn(rule, { sameTerm: true })
        return [course.code, coursesIn(rule).filter((code) => !together.includes(code))] as const
      })
    )
    const done = new Set<string>()
    const visit = (code: string, above: string[]): void => {
      if (above.includes(code)) throw new Error(`circle: ${[...above, code].join(' -> ')}`)
      if (done.has(code)) return
      for (const next of before.get(code as never) ?? []) visit(next, [...above, code])
      done.add(code)
    }
    for (const code of before.keys()) visit(code, [])
    expect(done.size).toBe(160)
  })
  it('describes every course in words of its own', () => {
    const texts = courses.map((course) => course.description)
    expect(new Set(texts).size).toBe(texts.length)
    expect(texts.filter((text) => text.length < 20)).toEqual([])
  })
})

describe('the demo programs', () => {
  const compiled = programs.map((spec) => compileProgram(spec, { lists: listsFor(lists, spec.catalogYear) }))

  it('have no need that the catalog cannot meet', () => {
    for (const { needs, spec } of compiled) {
      for (const need of needs) {
        const fitting = courses.filter((course) => takes(need, course))
        const enough =
          need.measure === 'courses'
            ? fitting.length
            : fitting.reduce((sum, course) => sum + course.credits, 0)
        expect(enough, `${spec.code} ${need.id}`).toBeGreaterThanOrEqual(need.amount)
      }
    }
  })
  it('state the credits of a list that is asked for as a whole', () => {
    let lists = 0
    for (const { needs, spec } of compiled) {
      for (const need of needs) {
        if (need.measure !== 'courses' || need.set.listed?.length !== need.amount) continue
        lists++
        const sum = need.set.listed.reduce((total, code) => total + catalog.course(code).credits, 0)
        // A four-credit course is fine for three (common practice), so a list may carry one more.
        expect(sum - need.credits, `${spec.code} ${need.id}`).toBeGreaterThanOrEqual(0)
        expect(sum - need.credits, `${spec.code} ${need.id}`).toBeLessThanOrEqual(1)
      }
    }
    expect(lists).toBeGreaterThan(8)
  })
  it('oblige to programs that exist', () => {
    const codes = programs.map((program) => program.code)
    const obliged = programs.flatMap((program) => program.obliges ?? [])
    expect(obliged).toEqual(['ETHC'])
    expect(codes).toEqual(expect.arrayContaining(obliged))
  })
})

describe('people of the demo stand where their card says', () => {
  let world: World
  beforeAll(async () => {
    world = await demoWorld('people')
  })
  afterAll(() => world.close())

  const NOW = Date.parse('2027-04-09T13:40:00Z')
  async function look(name: string): Promise<{ studentRecord: StudentRecord; reading: Reading }> {
    const who = await person(world.db, name)
    const [studentRecord] = await readStudentRecords(world.db, [idOf(who)], 'self')
    return { studentRecord: studentRecord!, reading: readStudent(studentRecord!, world.catalogContext, NOW) }
  }
  const kinds = (reading: Reading) => reading.findings.map((finding) => finding.code)

  it('Imke: one finding far ahead, a draft week, asked for review', async () => {
    const { studentRecord, reading } = await look('Imke Varga')
    expect(reading.findings).toMatchObject([
      { code: 'prerequisite', course: 'ENDA 410', missing: { course: 'STAT 330' } }
    ])
    expect(reading.audits[0]!.amounts).toMatchObject({ earned: 48, underWay: 15 })
    expect(studentRecord.drafts[0]!.sections).toHaveLength(5)
    expect(studentRecord.reviews).toMatchObject([{ term: 'AU27', answer: null }])
  })
  it('Teodor: nothing planned', async () => {
    expect((await look('Teodor Quill')).studentRecord.route.courses).toEqual([])
  })
  it('Saoirse: everything placed but two credits', async () => {
    const { reading } = await look('Saoirse Lindqvist')
    expect(reading.audits[0]!.amounts.needed).toBe(2)
    expect(reading.audits[0]!.amounts.registered).toBeGreaterThan(0)
  })
  it('Bram: a hold that stops registration', async () => {
    expect((await look('Bram Ostrander')).studentRecord.holds).toMatchObject([
      { stopsRegistration: true, amount: 14.5 }
    ])
  })
  it('Hanne: a corequisite is missing', async () => {
    expect(kinds((await look('Hanne Petrossian')).reading)).toEqual(['corequisite'])
  })
  it('Lucan: two failed attempts, one under way, an average below 2.0', async () => {
    const { reading } = await look('Lucan Adeyemi-Frost')
    expect(reading.attempts.idle.filter((i) => i.why === 'failed')).toHaveLength(2)
    expect(reading.audits[0]!.gpa.overall).toBeLessThan(2)
  })
  it('Ottilie: courses outside the degree, one of them planned', async () => {
    const { reading } = await look('Ottilie Marsh')
    expect(reading.outside.length).toBeGreaterThanOrEqual(3)
    expect(kinds(reading)).toContain('outside')
  })
  it('Dario: nine transferred courses count', async () => {
    const { reading } = await look('Dario Fenn')
    expect(reading.attempts.counted.filter((t) => t.origin === 'transfer')).toHaveLength(9)
    expect(reading.climb.start).toBeGreaterThan(27)
  })
  it('Wren: in block Kestrel, seats placed by the office', async () => {
    const { studentRecord } = await look('Wren Halloran')
    expect(studentRecord.student.block).toBe('Kestrel')
    expect(studentRecord.held.filter((h) => h.placedByOffice)).toHaveLength(3)
    expect(studentRecord.programs.map((p) => p.spec.code)).toEqual(['GEOF', 'ETHC'])
  })
  it('Mira: first in line', async () => {
    expect((await look('Mira Sandoval')).studentRecord.waiting).toMatchObject([{ place: 1 }])
  })
  it('Jonas: an empty record, an office for an advisor, a program to confirm', async () => {
    const { studentRecord, reading } = await look('Jonas Thackeray')
    expect(studentRecord.record).toEqual([])
    expect(studentRecord.advisors).toMatchObject([{ kind: 'office' }])
    expect(studentRecord.programs[0]!.confirmed).toBe('open')
    expect(reading.audits[0]!.amounts.needed).toBe(120)
    expect(reading.climb.points).toEqual([])
  })
  it('Tamsin: two sections placed by an office', async () => {
    expect((await look('Tamsin Roe')).studentRecord.held.filter((h) => h.placedByOffice)).toHaveLength(2)
  })
  it('Priya: signed off for other courses than she plans now', async () => {
    const { studentRecord } = await look('Priya Castellane')
    const planned = studentRecord.route.courses.filter((p) => p.term === 'AU27').map((p) => p.course)
    expect(studentRecord.signOffs[0]!.courses).not.toEqual(planned)
  })
  it('every student may register in Autumn 2027 from some instant on', async () => {
    const studentRecords = await readStudentRecords(
      world.db,
      Array.from({ length: 317 }, (_, i) => i + 1),
      'self'
    )
    expect(studentRecords).toHaveLength(317)
    expect(
      studentRecords.filter((p) => !p.openings.some((o) => o.term === 'AU27')).map((p) => p.student.name)
    ).toEqual([])
  })
  it('second-year AAS students open on their own day, after the others of their year', async () => {
    const { studentRecord } = await look('Wren Halloran')
    expect(studentRecord.openings.find((o) => o.term === 'AU27')).toMatchObject({
      title: 'second-year AAS students',
      opens: Date.parse('2027-04-14T11:00:00Z')
    })
  })
})
