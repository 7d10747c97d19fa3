/** What the registrar enters on a record: looked at before, done with a reason, told, and read by all that rests on it. */
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { courseCode, termCode } from '#core/ids'
import { all } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { enter, lookAtEntry } from '#server/features/record/entries'
import { readStudentRecords } from '#server/features/record/studentRecords'
import type { Who } from '#shared/accounts/responses'
import { readStudent } from '#shared/reading'
import { entryBody } from '#shared/record/entries'
import { at, demoWorld, idOf, person, within, type World } from './world'

let world: World
let edda: Who & { id: number }
let imke: Who & { id: number }
let now: number
beforeAll(async () => {
  world = await demoWorld('entries')
  edda = await person(world.db, 'Edda Whitlock')
  imke = await person(world.db, 'Imke Varga')
  now = (await at(world)).now
})
afterAll(() => world.close())

const when = () => ({ who: edda, student: idOf(imke), now, zone: world.catalogContext.zone })
const said = (entry: object, reason = 'As the papers say.') => entryBody.parse({ reason, entry })
const put = (entry: object) => within(world, (tx) => enter(tx, when(), said(entry)))
const look = (entry: object) => lookAtEntry(world.db, when(), said(entry), world.catalogContext)
const record = async () => (await readStudentRecords(world.db, [idOf(imke)], 'registrar'))[0]!
const audits = async () => readStudent(await record(), world.catalogContext, now).audits

describe('a grade', () => {
  it('is put right with its effect before, told with the reason, and raises the average', async () => {
    const graded = (await record()).record.find((one) => one.term !== null && one.grade === 'B')!
    const entry = { kind: 'grade', course: graded.course, term: graded.term, grade: 'a' }
    const before = await record()
    const was = (await audits())[0]!.gpa.overall!
    const { what } = await look(entry)
    // Looking leaves nothing behind.
    expect(await record()).toEqual(before)
    expect(await put(entry)).toEqual({ what })
    expect(what).toMatch(new RegExp(`^${graded.course}, .+: A \\(before: B\\)$`))
    expect((await audits())[0]!.gpa.overall).toBeGreaterThan(was)
    const [event] = await world.db
      .select({ after: t.eventLog.after, mail: t.mail.id })
      .from(t.eventLog)
      .innerJoin(t.mail, eq(t.mail.eventId, t.eventLog.id))
      .where(all(eq(t.eventLog.action, 'record.entered'), eq(t.mail.accountId, imke.id)))
    expect(event!.after).toMatchObject({ what, reason: 'As the papers say.', by: 'Edda Whitlock' })
    await expect(put(entry)).rejects.toMatchObject({ status: 409, code: 'hasAlready' })
  })
  it('is of a course that was taken then, in a term that has begun', async () => {
    const wrong = { kind: 'grade', course: 'MUSI 101', term: 'AU26', grade: 'A' }
    await expect(put(wrong)).rejects.toMatchObject({ code: 'notTaken', fields: [{ field: 'entry.course' }] })
    await expect(put({ ...wrong, term: 'AU27' })).rejects.toMatchObject({ code: 'termAhead' })
    await expect(put({ ...wrong, grade: 'Q' })).rejects.toMatchObject({
      status: 400,
      fields: [{ field: 'entry.grade', message: 'has to be a grade such as A+, A, A-, B+' }]
    })
    expect(
      entryBody.safeParse({ reason: 'none given', entry: { ...wrong, grade: 'TOO GOOD' } }).success
    ).toBe(false)
  })
  it('is posted for a seat of a term under way', async () => {
    const held = (await record()).record.find((one) => one.term === 'SP27' && one.grade === null)!
    await put({ kind: 'grade', course: held.course, term: 'SP27', grade: 'B+' })
    expect(
      (await record()).record.find((one) => one.course === held.course && one.term === 'SP27')!.grade
    ).toBe('B+')
  })
})

describe('credit from elsewhere', () => {
  it('is entered once, counts where the degree has room for it, and is taken off again', async () => {
    const entry = { kind: 'credit', course: 'SPCH 101', credits: 3, origin: 'transfer' }
    const { what, effects } = await look(entry)
    expect(what).toContain('SPCH 101, 3 cr')
    expect(effects.find((one) => one.of === 'needed')).toMatchObject({ isWorse: false })
    await put(entry)
    expect((await record()).record).toContainEqual(
      expect.objectContaining({ course: courseCode('SPCH 101'), term: null, origin: 'transfer', grade: 'TR' })
    )
    await expect(put(entry)).rejects.toMatchObject({ code: 'hasAlready' })
    await put({ kind: 'dropCredit', course: 'SPCH 101' })
    await expect(put({ kind: 'dropCredit', course: 'SPCH 101' })).rejects.toMatchObject({
      code: 'notBroughtIn'
    })
    await expect(put({ ...entry, course: 'NONE 999' })).rejects.toMatchObject({ code: 'noCourse' })
  })
})

describe('what else is on record', () => {
  it('is a test, once a day', async () => {
    await put({ kind: 'test', test: 'Water', score: 40, takenOn: '2027-03-01' })
    const { what } = await put({ kind: 'test', test: 'Water', score: 44, takenOn: '2027-03-01' })
    expect(what).toBe('Water of Mon 1 Mar 2027: 44 (before: 40)')
    expect((await record()).tests).toMatchObject({ Water: 44 })
    await expect(put({ kind: 'test', test: 'Water', score: 1, takenOn: '2027-05-01' })).rejects.toMatchObject(
      {
        code: 'dayAhead'
      }
    )
  })
  it('is the status, of which only what differs is told', async () => {
    const { student } = await record()
    const status = { kind: 'status', standing: student.standing, attendance: student.attendance }
    const same = { ...status, residency: student.residency, block: student.block }
    await expect(put(same)).rejects.toMatchObject({ code: 'hasAlready' })
    const { what } = await put({ ...same, attendance: 'partTime' })
    expect(what).toBe('attendance part time (before: full time)')
    expect((await record()).student.attendance).toBe('partTime')
    await expect(put({ ...same, block: 'NONE' })).rejects.toMatchObject({ code: 'noBlock' })
  })
  it('are programs: added, another version, taken off but for the last', async () => {
    const versions = await world.db
      .select({ id: t.programVersion.id, code: t.program.code, year: t.programVersion.catalogYear })
      .from(t.programVersion)
      .innerJoin(t.program, eq(t.program.id, t.programVersion.programId))
    const codes = async () => (await record()).programs.map((one) => one.spec.code)
    const own = await codes()
    const other = versions.find((one) => !own.includes(one.code))!
    await put({ kind: 'addProgram', version: other.id })
    expect(await codes()).toEqual([...own, other.code])
    await expect(put({ kind: 'addProgram', version: other.id })).rejects.toMatchObject({ code: 'hasAlready' })
    await put({ kind: 'dropProgram', program: other.code })
    for (const code of own.slice(1)) await put({ kind: 'dropProgram', program: code })
    await expect(put({ kind: 'dropProgram', program: own[0] })).rejects.toMatchObject({ code: 'onlyProgram' })
    await expect(put({ kind: 'dropProgram', program: 'NONE' })).rejects.toMatchObject({ code: 'noProgram' })
    expect((await record()).programs.at(-1)!.confirmed).not.toBe('wrong')
  })
  it('is who advises', async () => {
    const [boyle] = await world.db
      .select({ id: t.advisor.id })
      .from(t.advisor)
      .innerJoin(t.account, eq(t.account.id, t.advisor.accountId))
      .where(eq(t.account.name, 'Casimir Boyle'))
    const { what } = await put({ kind: 'advisor', purpose: 'program', advisor: boyle!.id })
    expect(what).toBe('program advisor: Casimir Boyle (before: Orla Denholt)')
    expect((await record()).advisors.map((one) => one.name)).toContain('Casimir Boyle')
    await expect(put({ kind: 'advisor', purpose: 'support', advisor: boyle!.id })).rejects.toMatchObject({
      code: 'noAdvisor'
    })
  })
})

it('a term code is read as it is everywhere', () => {
  expect(
    entryBody.parse({
      reason: 'as it was',
      entry: { kind: 'grade', course: 'envi310', term: 'AU26', grade: 'b' }
    }).entry
  ).toEqual({
    ...{ kind: 'grade', course: courseCode('ENVI 310'), term: termCode('AU26'), grade: 'B' }
  })
})
