import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Who } from '#shared/accounts/responses'
import { goingWith } from '#shared/reading'
import * as t from '#server/db/schema/index'
import { mustBe } from '#server/features/accounts/accounts'
import { readDesk } from '#server/features/advising/desk'
import { withdrawSignOff } from '#server/features/advising/signOff'
import { answerProgram } from '#server/features/degree/answer'
import { changeRoute } from '#server/features/route/route'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { at, AUTUMN, demoWorld, idOf, person, pickFor, signOff, within, type World } from './world'

let world: World
let imke: Who
let bram: Who
let orla: Who
let casimir: Who
let nell: Who
let edda: Who
beforeAll(async () => {
  world = await demoWorld('access')
  const names = [
    'Imke Varga',
    'Bram Ostrander',
    'Orla Denholt',
    'Casimir Boyle',
    'Nell Fairweather',
    'Edda Whitlock'
  ]
  ;[imke, bram, orla, casimir, nell, edda] = (await Promise.all(names.map((n) => person(world.db, n)))) as [
    Who,
    Who,
    Who,
    Who,
    Who,
    Who
  ]
})
afterAll(() => world.close())

const may = (who: Who, student: Who) =>
  mustBe(world.db, who, idOf(student), ['self', 'programAdvisor', 'supportAdvisor', 'registrar'])
describe('a record', () => {
  it('belongs to its student: no other student opens it', async () => {
    expect(await may(imke, imke)).toBe('self')
    await expect(may(imke, bram)).rejects.toMatchObject({ status: 403, code: 'notYours' })
  })
  it("is open to the student's own advisors, each by their purpose", async () => {
    expect(await may(orla, imke)).toBe('programAdvisor')
    expect(await may(nell, imke)).toBe('supportAdvisor')
    expect(await may(edda, imke)).toBe('registrar')
  })
  it('is closed to a strange advisor, who does not learn whether it exists', async () => {
    await expect(may(casimir, imke)).rejects.toMatchObject({ status: 403, code: 'notYours' })
    const nobody = { ...imke, student: 99_999 as never }
    await expect(may(casimir, nobody)).rejects.toMatchObject({ status: 403, code: 'notYours' })
  })
  it('is not written by those who only read', async () => {
    const own = (who: Who) => mustBe(world.db, who, idOf(imke), ['self'])
    await expect(own(orla)).rejects.toMatchObject({ code: 'notAllowed' })
    await expect(own(nell)).rejects.toMatchObject({ code: 'notAllowed' })
  })
  it('is signed off by a program advisor, not by a support advisor', async () => {
    await expect(mustBe(world.db, nell, idOf(imke), ['programAdvisor'])).rejects.toMatchObject({
      code: 'notAllowed'
    })
    expect(await mustBe(world.db, orla, idOf(imke), ['programAdvisor'])).toBe('programAdvisor')
  })
})

describe('picking', () => {
  it('takes a section with its components or nothing', async () => {
    await expect(pickFor(world, imke, 'SOIL 220', '01')).rejects.toMatchObject({
      status: 422,
      code: 'noOption'
    })
    await expect(pickFor(world, imke, 'SOIL 220', '01', '02A')).rejects.toMatchObject({ code: 'noOption' })
    await pickFor(world, imke, 'SOIL 220', '01', '01B')
    const [studentRecord] = await readStudentRecords(world.db, [idOf(imke)], 'self')
    const soil = studentRecord!.sections.filter((s) => s.course === 'SOIL 220')
    const picked = goingWith(studentRecord!, AUTUMN)!.sections
    expect(soil.filter((s) => picked.includes(s.code)).map((s) => s.number)).toEqual(['01', '01B'])
  })
  it('takes a pick back', async () => {
    await pickFor(world, imke, 'SOIL 220')
    const [studentRecord] = await readStudentRecords(world.db, [idOf(imke)], 'self')
    const picked = goingWith(studentRecord!, AUTUMN)!.sections
    expect(studentRecord!.sections.filter((s) => s.course === 'SOIL 220' && picked.includes(s.code))).toEqual(
      []
    )
  })
})

describe('the sign-off', () => {
  it('holds the courses and a range of credits, and answers the review', async () => {
    await signOff(world, orla, idOf(imke))
    const [studentRecord] = await readStudentRecords(world.db, [idOf(imke)], 'self')
    expect(studentRecord!.signOffs[0]).toMatchObject({
      term: AUTUMN,
      by: 'Orla Denholt',
      courses: ['ENDA 310', 'ENDA 325', 'MATH 231', 'SOIL 220', 'WRIT 215'],
      creditsLeast: 13,
      creditsMost: 18
    })
    expect(studentRecord!.reviews).toMatchObject([
      { term: AUTUMN, answer: { by: 'Orla Denholt', missing: null } }
    ])
  })
  it('shows on the desk when the route has changed since', async () => {
    const { route } = (await readStudentRecords(world.db, [idOf(imke)], 'self'))[0]!
    const gone = route.courses.find((p) => p.course === 'ENDA 325' && p.term === AUTUMN)!
    const when = { who: imke, student: idOf(imke), ...(await at(world)) }
    const { version } = route
    await within(world, (tx) =>
      changeRoute(tx, when, { route: null, version, change: { kind: 'remove', planned: gone } })
    )
    const desk = await readDesk(world.db, orla, world.catalogContext, (await at(world)).now)
    expect(desk.rows.find((row) => row.name === 'Imke Varga')).toMatchObject({
      changedSince: true,
      planned: 4
    })
    expect(desk.rows.every((row) => row.name !== 'Bram Ostrander')).toBe(true)
  })
  it('can be withdrawn once', async () => {
    const { now } = await at(world)
    const take = () => within(world, (tx) => withdrawSignOff(tx, orla, idOf(imke), AUTUMN, now))
    await take()
    await expect(take()).rejects.toMatchObject({ status: 409, code: 'noSignOff' })
  })
})

describe('the program on record', () => {
  it('is confirmed, or reported with what is right instead', async () => {
    const felix = await person(world.db, 'Felix Abara')
    const { now } = await at(world)
    await within(world, (tx) =>
      answerProgram(
        tx,
        felix,
        idOf(felix),
        { program: 'HERI', answer: 'wrong', instead: 'BSc Environmental Data' },
        now
      )
    )
    const [row] = await world.db
      .select()
      .from(t.studentProgram)
      .where(eq(t.studentProgram.studentId, idOf(felix)))
    expect(row).toMatchObject({ confirmed: 'wrong', saidInstead: 'BSc Environmental Data' })
    const other = within(world, (tx) =>
      answerProgram(tx, felix, idOf(felix), { program: 'ENVD', answer: 'confirmed' }, now)
    )
    await expect(other).rejects.toMatchObject({ code: 'noProgram' })
  })
})
