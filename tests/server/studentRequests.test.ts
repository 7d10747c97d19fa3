/** Requests: asked for from what they settle, decided by whoever may, handed on, used, ended, withdrawn. */
import { desc, eq, sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { courseCode } from '#core/ids'
import { decideCourse } from '#core/registration'
import { optionsAmong } from '#core/week'
import type { Who } from '#shared/accounts/responses'
import { handOnBody, requestAnswerBody, requestBody } from '#shared/advising/requests'
import { readStudent } from '#shared/reading'
import { registrationFacts } from '#shared/registration/registering'
import * as t from '#server/db/schema/index'
import { answerRequests, handOn } from '#server/features/advising/requestAnswers'
import { endAccount } from '#server/features/accounts/staff'
import { changeRules, rulesOf } from '#server/features/sections/rules'
import { readDeskRequests } from '#server/features/advising/deskRequests'
import { answerProgram } from '#server/features/degree/answer'
import { effectOfProgram, readVersions } from '#server/features/degree/programChange'
import { askFor, withdrawRequest } from '#server/features/advising/requests'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { run } from '#server/features/registration/run'
import { offerOf } from '#server/features/sections/sections'
import { readTaught } from '#server/features/sections/teaching'
import {
  at,
  AUTUMN,
  idOf,
  LANGUAGE,
  openWorld,
  OPENS,
  person,
  pickFor,
  sectionsNumbered,
  setTime,
  within,
  type World
} from './world'

type Person = Who & { id: number }
let world: World
let imke: Person
let orla: Person
let casimir: Person
let edda: Person
let idris: Person
let tamsin: Person
/** Of languages, which no department that signs in has; and of environmental data, taught by Idris. */
let language: { id: number; code: string }
let data: { id: number; code: string }

beforeAll(async () => {
  world = await openWorld('student_requests')
  const named = (name: string) => person(world.db, name)
  imke = await named('Imke Varga')
  orla = await named('Orla Denholt')
  casimir = await named('Casimir Boyle')
  edda = await named('Edda Whitlock')
  idris = await named('Idris Brandvold')
  tamsin = await named('Tamsin Orford')
  const fill = async (course: string) => {
    const [found] = await sectionsNumbered(world, course, '01')
    await world.db.update(t.section).set({ capacity: 2, taken: 2 }).where(eq(t.section.id, found!.id))
    await pickFor(world, imke, course, '01')
    return { id: found!.id, code: found!.code }
  }
  language = await fill(LANGUAGE)
  data = await fill('ENDA 310')
})
afterAll(() => world.close())

const doing = async (who: Who) => ({ who, student: idOf(imke), ...(await at(world)) })
const ask = async (said: object, who = imke) => {
  const now = { ...(await doing(who)), student: idOf(who) }
  const body = requestBody.parse({ reason: 'It is the last I need.', ...said })
  return within(world, async (tx) => (await askFor(tx, now, body, world.catalogContext)).request)
}
const answer = async (who: Who, said: object) => {
  const { now } = await at(world)
  return within(world, (tx) =>
    answerRequests(tx, { who, now, catalogContext: world.catalogContext }, requestAnswerBody.parse(said))
  )
}
const hand = async (who: Who, id: number, to: string, words: string | null = null) => {
  const { now } = await at(world)
  return within(world, (tx) => handOn(tx, { who, now }, id, handOnBody.parse({ to, words })))
}
const withdraw = async (id: number, who = imke) => {
  const now = { ...(await doing(who)), student: idOf(who) }
  return within(world, (tx) => withdrawRequest(tx, now, id))
}
const look = async (who: Who = imke) => (await readStudentRecords(world.db, [idOf(who)], 'self'))[0]!
const request = async (id: number) => (await look()).requests.find((one) => one.id === id)
const waitingFor = async (who: Person) =>
  (await readDeskRequests(world.db, who, (await at(world)).now)).filter((one) => one.state === 'asked')
const register = async (course: string) =>
  (
    await run(
      world.db,
      imke,
      idOf(imke),
      { term: AUTUMN, courses: [courseCode(course)] },
      world.catalogContext
    )
  ).lines[0]!

describe('a request for a permission', () => {
  let id: number
  it('is for what stands in the way, once, and for nothing else', async () => {
    const full = { kind: 'full', section: data.code }
    await expect(ask({ ...full, kind: 'load' })).rejects.toMatchObject({ code: 'nothingToSettle' })
    await expect(ask({ ...full, section: 'NONE9' })).rejects.toMatchObject({ fields: [{ field: 'section' }] })
    id = await ask(full)
    await expect(ask(full)).rejects.toMatchObject({ status: 409, code: 'askedAlready' })
    expect(await request(id)).toMatchObject({
      ...{ section: data.code, kind: 'full', state: 'asked', waitsFor: 'instructor' },
      ...{ handedOn: [], answer: null, course: null, need: null }
    })
  })
  it('waits for who teaches the section, with what it would come to, and for nobody else', async () => {
    expect(await waitingFor(idris)).toMatchObject([
      {
        ...{ id, kind: 'full', as: 'instructor', mayDecide: true, course: 'ENDA 310', number: '01' },
        ...{ student: { name: 'Imke Varga' }, against: { code: 'full' }, seats: { taken: 2, capacity: 2 } },
        others: ['department', 'registrar']
      }
    ])
    for (const other of [orla, tamsin, edda]) expect(await waitingFor(other)).toEqual([])
    for (const [who, code] of [
      [orla, 'othersDecide'],
      [casimir, 'notYours']
    ] as const)
      await expect(answer(who, { requests: [id], answer: 'given' })).rejects.toMatchObject({ code })
  })
  it('goes to the department where nobody who teaches it signs in, and to the registrar where nobody does', async () => {
    await world.db.update(t.account).set({ instructorId: 2 }).where(eq(t.account.id, idris.id))
    await withdraw(id)
    id = await ask({ kind: 'full', section: data.code })
    expect((await request(id))!.waitsFor).toBe('department')
    await world.db.update(t.account).set({ instructorId: 1 }).where(eq(t.account.id, idris.id))
    const other = await ask({ kind: 'full', section: language.code })
    expect((await request(other))!.waitsFor).toBe('registrar')
    await withdraw(other)
  })
  it('is handed on once the last for whom it waits signs in no more, whoever ended that', async () => {
    expect((await request(id))!.waitsFor).toBe('department')
    await within(world, (tx) => endAccount(tx, edda, tamsin.id))
    expect(await request(id)).toMatchObject({
      waitsFor: 'instructor',
      handedOn: [
        { by: 'Edda Whitlock', to: 'instructor', words: expect.stringContaining('the department') as string }
      ]
    })
    await world.db.update(t.account).set({ endedAt: null }).where(eq(t.account.id, tamsin.id))
    await within(world, (tx) => endAccount(tx, edda, idris.id))
    expect((await request(id))!.waitsFor).toBe('department')
    await world.db.update(t.account).set({ endedAt: null }).where(eq(t.account.id, idris.id))

    await withdraw(id)
    id = await ask({ kind: 'full', section: data.code })
    expect((await request(id))!.waitsFor).toBe('instructor')
    const { [data.code]: rules } = await rulesOf(world.db, [data.code])
    const { now } = await at(world)
    const taughtBy = (instructors: number[]) =>
      within(world, (tx) =>
        changeRules(
          tx,
          edda,
          data.code,
          { ...rules!, instructors },
          { catalogContext: world.catalogContext, now }
        )
      )
    await taughtBy([])
    expect((await request(id))!.waitsFor).toBe('department')
    await taughtBy(rules!.instructors)
    await world.db.delete(t.mail)
  })
  it('is asked of whom the institution says', async () => {
    const set = (policy: { full: ['registrar'] } | null) =>
      world.db.update(t.institution).set({ requestPolicy: policy })
    await set({ full: ['registrar'] })
    await withdraw(id)
    id = await ask({ kind: 'full', section: data.code })
    expect((await request(id))!.waitsFor).toBe('registrar')
    await expect(answer(tamsin, { requests: [id], answer: 'given' })).rejects.toMatchObject({
      code: 'othersDecide',
      message: 'This is decided by the registrar. Hand it on.'
    })
    await set(null)
  })
  it('is handed on, with a word, by whom it waits for, to somebody there is', async () => {
    await expect(hand(tamsin, id, 'registrar')).rejects.toMatchObject({ code: 'notWaiting' })
    await expect(hand(casimir, id, 'registrar')).rejects.toMatchObject({ code: 'notYours' })
    await hand(edda, id, 'department', 'The room has chairs.')
    await expect(hand(edda, id, 'department')).rejects.toMatchObject({ code: 'notWaiting' })
    for (const to of ['department', 'programAdvisor'])
      await expect(hand(tamsin, id, to)).rejects.toMatchObject({ fields: [{ field: 'to' }] })
    expect(await waitingFor(edda)).toEqual([])
    expect(await waitingFor(tamsin)).toMatchObject([
      { id, handedOn: [{ by: 'Edda Whitlock', to: 'department', words: 'The room has chairs.' }] }
    ])
    const told = await world.db
      .select({ account: t.mail.accountId })
      .from(t.mail)
      .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
      .where(eq(t.eventLog.action, 'request.handedOn'))
    expect(told.map((row) => row.account).sort()).toEqual([imke.id, tamsin.id].sort())
  })
  it('that is granted adds a seat when it is used, and only until its end', async () => {
    await expect(
      answer(tamsin, { requests: [id], answer: 'given', until: '2027-01-01' })
    ).rejects.toMatchObject({ fields: [{ field: 'until' }] })
    await answer(tamsin, { requests: [id], answer: 'given', until: '2027-04-12', words: 'This once.' })
    expect(await request(id)).toMatchObject({
      state: 'given',
      answer: { by: 'Tamsin Orford', words: 'This once.', until: Date.parse('2027-04-13T04:00:00Z') }
    })
    await setTime(world, Date.parse('2027-04-13T04:00:00Z'))
    expect((await register('ENDA 310')).refusals.map((one) => one.code)).toEqual(['full'])
    await setTime(world, OPENS)
    expect(await register('ENDA 310')).toMatchObject({ outcome: 'registered' })
    const [row] = await world.db.select().from(t.section).where(eq(t.section.id, data.id))
    expect(row).toMatchObject({ capacity: 3, taken: 3 })
  })
  it('is withdrawn by its student, and then answered by nobody', async () => {
    await withdraw(id)
    expect(await request(id)).toBeUndefined()
    await expect(answer(edda, { requests: [id], answer: 'declined' })).rejects.toMatchObject({
      code: 'withdrawn'
    })
    await expect(withdraw(id)).rejects.toMatchObject({ code: 'notWaiting' })
    await expect(withdraw(id, await person(world.db, 'Mira Sandoval'))).rejects.toMatchObject({
      status: 404
    })
  })
})

describe('a late change', () => {
  it('is let in after adding has ended, and out after dropping has, by the registrar', async () => {
    const [term] = await world.db.select().from(t.term).where(eq(t.term.code, AUTUMN))
    await world.db.update(t.section).set({ capacity: 9 }).where(eq(t.section.id, language.id))
    await setTime(world, term!.addEndsAt.getTime())
    expect((await register(LANGUAGE)).refusals.map((one) => one.code)).toEqual(['closed'])
    const late = await ask({ kind: 'late', section: language.code })
    expect((await request(late))!.waitsFor).toBe('registrar')
    await answer(edda, { requests: [late], answer: 'given' })
    expect(await register(LANGUAGE)).toMatchObject({ outcome: 'registered' })
    await answer(edda, { requests: [late], answer: 'declined' })

    await setTime(world, term!.dropEndsAt.getTime())
    const drop = async () =>
      (
        await run(
          world.db,
          imke,
          idOf(imke),
          { term: AUTUMN, courses: [], drop: [courseCode(LANGUAGE)] },
          world.catalogContext
        )
      ).lines[0]!
    expect((await drop()).refusals.map((one) => one.code)).toEqual(['dropEnded'])
    const out = await ask({ kind: 'late', section: language.code })
    await answer(edda, { requests: [out], answer: 'given' })
    expect(await drop()).toMatchObject({ outcome: 'dropped', mark: 'W' })
    await setTime(world, OPENS)
  })
})

describe('several requests', () => {
  it('are answered all or none', async () => {
    const mira = await person(world.db, 'Mira Sandoval')
    const one = await ask({ kind: 'waiver', course: 'ENDA 410' })
    const other = await ask({ kind: 'waiver', course: 'ENDA 410' }, mira)
    await withdraw(other, mira)
    await expect(answer(orla, { requests: [one, other], answer: 'given' })).rejects.toMatchObject({
      code: 'withdrawn'
    })
    expect((await request(one))!.state).toBe('asked')
    const again = await ask({ kind: 'waiver', course: 'ENDA 410' }, mira)
    await answer(orla, { requests: [one, again], answer: 'given' })
    expect((await request(one))!.state).toBe('given')
    expect((await look(mira)).requests).toMatchObject([{ id: again, state: 'given' }])
    const log = await world.db
      .select({ student: t.eventLog.studentId })
      .from(t.eventLog)
      .where(eq(t.eventLog.action, 'request.answered'))
      .orderBy(desc(t.eventLog.id))
      .limit(2)
    expect(log.map((row) => row.student)).toEqual([idOf(mira), idOf(imke)])
    await answer(orla, { requests: [one, again], answer: 'declined' })
    await expect(answer(orla, { requests: [one, 99_999], answer: 'given' })).rejects.toMatchObject({
      status: 404
    })
  })
})

describe('a waiver of a prerequisite', () => {
  const findings = async () =>
    readStudent(await look(), world.catalogContext, (await at(world)).now).findings.flatMap((one) =>
      'course' in one && one.course === 'ENDA 410' ? [one.code] : []
    )
  it('settles the finding when it is given, and not when that is taken back', async () => {
    expect(await findings()).toEqual(['prerequisite'])
    const id = await ask({ kind: 'waiver', course: 'ENDA 410' })
    expect(await findings()).toEqual(['prerequisite'])
    await answer(orla, { requests: [id], answer: 'given' })
    expect(await findings()).toEqual([])
    await expect(ask({ kind: 'waiver', course: 'ENDA 410' })).rejects.toMatchObject({ code: 'askedAlready' })
    await expect(answer(orla, { requests: [id], answer: 'given' })).rejects.toMatchObject({
      code: 'answeredAlready'
    })
    await answer(orla, { requests: [id], answer: 'declined' })
    expect(await findings()).toEqual(['prerequisite'])
  })
  it('has no last day, and is for a course of the catalog that has a prerequisite', async () => {
    const id = await ask({ kind: 'waiver', course: 'ENDA 410' })
    const until = { requests: [id], answer: 'given', until: '2027-05-01' }
    await expect(answer(orla, until)).rejects.toMatchObject({ fields: [{ field: 'until' }] })
    await expect(ask({ kind: 'waiver', course: 'ENDA 110' })).rejects.toMatchObject({
      code: 'noPrerequisite'
    })
    await expect(ask({ kind: 'waiver', course: 'NONE 999' })).rejects.toMatchObject({ code: 'noCourse' })
  })
  it('counts at registration as well', async () => {
    const code = courseCode('ENDA 410')
    const reasons = async () => {
      const offer = await offerOf(world.db, AUTUMN, [code])
      const facts = registrationFacts(await look(), world.catalogContext, {
        term: AUTUMN,
        now: OPENS,
        heldSections: [],
        offer
      })
      return decideCourse(facts, code, optionsAmong(offer)).refusals.map((one) => one.code)
    }
    expect(await reasons()).toContain('prerequisite')
    const id = (await look()).requests.find((one) => one.kind === 'waiver' && one.state === 'asked')!.id
    await answer(orla, { requests: [id], answer: 'given' })
    expect(await reasons()).not.toContain('prerequisite')
  })
})

describe('an exception that is asked for', () => {
  const swap = { kind: 'substitution', program: 'ENVD', need: 'speaking', course: 'HERI 320' }
  it('stands once it is given, and is withdrawn when that is taken back', async () => {
    await expect(ask({ ...swap, need: 'gone' })).rejects.toMatchObject({ fields: [{ field: 'need' }] })
    await expect(ask({ ...swap, course: 'SPCH 101' })).rejects.toMatchObject({ code: 'fitsAlready' })
    const id = await ask(swap)
    expect(await waitingFor(orla)).toMatchObject([
      { id, course: 'HERI 320', need: { title: expect.any(String) as string }, others: ['registrar'] }
    ])
    expect((await look()).exceptions).toEqual([])
    await answer(orla, { requests: [id], answer: 'given', words: 'The talk was given there.' })
    expect((await look()).exceptions).toMatchObject([
      { kind: 'substitution', need: 'speaking', course: 'HERI 320', reason: 'The talk was given there.' }
    ])
    await expect(withdraw(id)).rejects.toMatchObject({ code: 'notWaiting' })
    await answer(orla, { requests: [id], answer: 'declined' })
    expect((await look()).exceptions).toEqual([])
  })
  it('of a requirement is a waiver of it', async () => {
    const id = await ask({ kind: 'need', program: 'ENVD', need: 'speaking' })
    await answer(edda, { requests: [id], answer: 'given' })
    expect((await look()).exceptions).toMatchObject([{ kind: 'waiver', need: 'speaking', course: null }])
    await expect(ask(swap)).rejects.toMatchObject({ code: 'grantedAlready' })
  })
})

describe('a program that is said to be wrong', () => {
  const report = async (said: Parameters<typeof answerProgram>[3]) => {
    const { now } = await at(world)
    return within(world, (tx) => answerProgram(tx, imke, idOf(imke), said, now))
  }
  const wrong = { program: 'ENVD', answer: 'wrong' as const, instead: 'The one of 2025, please.' }
  const waiting = async () => (await waitingFor(edda)).filter((one) => one.kind === 'program')
  it('waits for the registrar, once, until its student says that it is right', async () => {
    await report(wrong)
    await report({ ...wrong, instead: 'BA Heritage.' })
    expect(await waiting()).toMatchObject([
      { reason: 'BA Heritage.', onRecord: { title: expect.any(String) as string }, mayDecide: true }
    ])
    await report({ program: 'ENVD', answer: 'confirmed' })
    expect(await waiting()).toEqual([])
    await report(wrong)
    await withdraw((await waiting())[0]!.id)
    expect((await look()).programs[0]).toMatchObject({ confirmed: 'open', saidInstead: null })
  })
  it('gives way to the one that is right, whose effect is told before', async () => {
    await report(wrong)
    const { id } = (await waiting())[0]!
    const heritage = (await readVersions(world.db)).find((one) => one.code === 'HERI')!
    const about = { catalogContext: world.catalogContext, now: (await at(world)).now }
    const effects = await effectOfProgram(world.db, id, heritage.id, about)
    expect(effects.find((one) => one.of === 'needed')).toBeDefined()
    const own = (await readVersions(world.db)).find((one) => one.code === 'ENVD')!
    expect(await effectOfProgram(world.db, id, own.id, about)).toEqual([])
    const given = { requests: [id], answer: 'given' }
    await expect(answer(edda, given)).rejects.toMatchObject({ fields: [{ field: 'version' }] })
    await expect(answer(edda, { ...given, version: own.id })).rejects.toMatchObject({ code: 'hasAlready' })
    await answer(edda, { ...given, version: heritage.id, words: 'As your letter says.' })
    const [first] = (await look()).programs
    expect(first).toMatchObject({ spec: { code: 'HERI' }, confirmed: 'open' })
    await expect(answer(edda, { requests: [id], answer: 'declined' })).rejects.toMatchObject({
      code: 'settled'
    })
  })
  it('stays where the registrar finds it right, and is to be confirmed anew', async () => {
    await report({ ...wrong, program: 'HERI' })
    const { id } = (await waiting())[0]!
    await answer(edda, { requests: [id], answer: 'declined', words: 'It is what you applied for.' })
    expect((await look()).programs[0]).toMatchObject({ spec: { code: 'HERI' }, confirmed: 'open' })
  })
})

describe('the sections of who teaches, and of a department', () => {
  const today = '2027-04-09'
  it('are theirs alone, with who is in them and who stands in line', async () => {
    const own = await readTaught(world.db, idris, today)
    expect(new Set(own.flatMap(({ section }) => section.instructors))).toEqual(new Set(['Idris Brandvold']))
    const full = own.find(({ section }) => section.code === data.code)!
    expect(full.registered.map((one) => one.name)).toContain('Imke Varga')
    const department = await readTaught(world.db, tamsin, today)
    expect(department.length).toBeGreaterThan(own.length)
    expect(
      department.every(({ section }) =>
        /^(ENDA|ENVI|HYDR|SOIL|FELD|GEOS|CHEM|BIOL|GEOG) /.test(section.course)
      )
    ).toBe(true)
    expect(await readTaught(world.db, orla, today)).toEqual([])
  })
  it('tell as many as the seats do', async () => {
    const rows = await readTaught(world.db, tamsin, today)
    const [{ n }] = (
      await world.db.execute(
        sql`select count(*) as n from registration r join section s on s.id = r.section_id
          join course c on c.id = s.course_id join subject b on b.id = c.subject_id join term t on t.id = s.term_id
          where b.department_id is not null and t.published and t.ends_on >= ${today}`
      )
    )[0] as unknown as [{ n: number }]
    expect(rows.reduce((sum, one) => sum + one.registered.length, 0)).toBe(Number(n))
  })
})
