/** The talk, the review with its answers, and what was agreed: who may say what, and who is told. */
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { courseCode } from '#core/ids'
import type { Who } from '#shared/accounts/responses'
import { agreedBody, signOffBody } from '#shared/advising/requests'
import * as t from '#server/db/schema/index'
import { addAgreed, dropAgreed, readAgreed, tickAgreed } from '#server/features/advising/agreed'
import { readDesk } from '#server/features/advising/desk'
import { answerNotYet, askForReview, withdrawReview } from '#server/features/advising/reviews'
import { signOffTerm } from '#server/features/advising/signOff'
import { addRemark, changeThread, readTalk } from '#server/features/advising/talk'
import { readAudience } from '#server/features/news/audience'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { run } from '#server/features/registration/run'
import { everybodyAgrees } from '../agreed'
import { at, AUTUMN, demoWorld, idOf, OPENS, person, setTime, within, type World } from './world'

let world: World
let imke: Who & { id: number }
let orla: Who & { id: number }
let nell: Who & { id: number }
beforeAll(async () => {
  world = await demoWorld('talk')
  imke = await person(world.db, 'Imke Varga')
  orla = await person(world.db, 'Orla Denholt')
  nell = await person(world.db, 'Nell Fairweather')
})
afterAll(() => world.close())

const doing = async (who: Who) => ({ who, student: idOf(imke), ...(await at(world)) })
const record = async () => (await readStudentRecords(world.db, [idOf(imke)], 'self'))[0]!
const talkOf = (who: Who & { id: number }, relation: 'self' | 'programAdvisor' | 'supportAdvisor') =>
  readTalk(world.db, idOf(imke), { account: who.id, relation })
const say = async (
  who: Who,
  relation: 'self' | 'programAdvisor' | 'supportAdvisor',
  text: string,
  over: object = {}
) => {
  const now = await doing(who)
  const matter = {
    to: 'matter' as const,
    about: { is: 'route' as const, key: null },
    advisorsOnly: false,
    text,
    named: []
  }
  return within(world, (tx) => addRemark(tx, { ...now, relation }, { ...matter, ...over }))
}

describe('a remark', () => {
  it('is unread to the other one until they have read it, and to nobody who wrote it', async () => {
    const { thread } = await say(imke, 'self', 'Is a summer in the field too late for the finish?')
    const seen = async (who: typeof imke, relation: 'self' | 'programAdvisor') =>
      (await talkOf(who, relation)).find((one) => one.id === thread)!
    expect(await seen(imke, 'self')).toMatchObject({ unread: 0, remarks: [{ own: true }] })
    const before = await seen(orla, 'programAdvisor')
    expect(before).toMatchObject({ unread: 1, remarks: [{ own: false, by: 'Imke Varga' }] })
    const reader = await doing(orla)
    const upTo = before.remarks[0]!.id
    const read = () =>
      within(world, (tx) =>
        changeThread(tx, { ...reader, relation: 'programAdvisor' }, thread, { readUpTo: upTo })
      )
    await read()
    await read()
    expect((await seen(orla, 'programAdvisor')).unread).toBe(0)
    await within(world, (tx) =>
      addRemark(
        tx,
        { ...reader, relation: 'programAdvisor' },
        { to: 'thread', thread, text: 'No, it fits.', named: [] }
      )
    )
    expect(await seen(imke, 'self')).toMatchObject({ unread: 1, remarks: [{}, { by: 'Orla Denholt' }] })
  })
  it('is counted on the desk of whoever has not read it', async () => {
    const rowOf = async (who: typeof orla) =>
      (await readDesk(world.db, who, world.catalogContext, (await at(world)).now)).rows.find(
        (row) => row.id === idOf(imke)
      )!
    const before = (await rowOf(nell)).unread
    await say(imke, 'self', 'And another question.')
    expect((await rowOf(nell)).unread).toBe(before + 1)
  })
  it('opens a settled matter again', async () => {
    const { thread } = await say(orla, 'programAdvisor', 'Look at the load of the spring.')
    const mine = { ...(await doing(imke)), relation: 'self' as const }
    const state = async () => (await talkOf(imke, 'self')).find((one) => one.id === thread)!.settled
    await within(world, (tx) => changeThread(tx, mine, thread, { settled: true }))
    expect(await state()).toMatchObject({ by: 'Imke Varga' })
    await within(world, (tx) =>
      addRemark(tx, mine, { to: 'thread', thread, text: 'One more thing.', named: [] })
    )
    expect(await state()).toBeNull()
  })
  it('by an advisor is mailed to the student; what the student says is not', async () => {
    const mails = async () =>
      (
        await world.db
          .select({ id: t.mail.id })
          .from(t.mail)
          .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
          .where(eq(t.eventLog.action, 'remark.made'))
      ).length
    const before = await mails()
    await say(imke, 'self', 'To be read.')
    expect(await mails()).toBe(before)
    await say(nell, 'supportAdvisor', 'Read.')
    expect(await mails()).toBe(before + 1)
  })
})

describe('what is said among advisors', () => {
  it('is for every advisor, and neither sent nor told to the student', async () => {
    const { thread } = await say(nell, 'supportAdvisor', 'Her mother is ill.', { advisorsOnly: true })
    expect((await talkOf(orla, 'programAdvisor')).some((one) => one.id === thread)).toBe(true)
    expect(JSON.stringify(await talkOf(imke, 'self'))).not.toContain('mother')
    expect((await talkOf(imke, 'self')).every((one) => !one.advisorsOnly)).toBe(true)
    const hears = await readAudience(world.db, imke)
    const news = { student: idOf(imke), by: 'Nell Fairweather', change: null }
    expect(hears({ ...news, kind: 'advisors' })).toBe(false)
    expect(hears({ ...news, kind: 'record' })).toBe(true)
    expect((await readAudience(world.db, orla))({ ...news, kind: 'advisors' })).toBe(true)
    const [told] = await world.db
      .select({ n: t.news.kind })
      .from(t.news)
      .where(eq(t.news.accountId, nell.id))
      .orderBy(t.news.id)
      .then((rows) => rows.slice(-1))
    expect(told).toEqual({ n: 'advisors' })
  })
  it('cannot be answered, settled, read or begun by the student, as if it were not there', async () => {
    const { thread } = await say(orla, 'programAdvisor', 'Between us.', { advisorsOnly: true })
    const mine = { ...(await doing(imke)), relation: 'self' as const }
    const tries = [
      () => within(world, (tx) => addRemark(tx, mine, { to: 'thread', thread, text: 'What?', named: [] })),
      () => within(world, (tx) => changeThread(tx, mine, thread, { settled: true })),
      () => within(world, (tx) => changeThread(tx, mine, thread, { readUpTo: 1 }))
    ]
    for (const attempt of tries)
      await expect(attempt()).rejects.toMatchObject({ status: 404, code: 'noThread' })
    await expect(say(imke, 'self', 'Hush.', { advisorsOnly: true })).rejects.toMatchObject({
      code: 'notAmongAdvisors'
    })
  })
})

describe('who is asked to read a remark', () => {
  const mailed = async (thread: number) =>
    world.db
      .select({ name: t.account.name, after: t.eventLog.after })
      .from(t.mail)
      .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
      .innerJoin(t.account, eq(t.account.id, t.mail.accountId))
      .then((rows) =>
        rows
          .filter(({ after }) => (after as { thread?: number } | null)?.thread === thread)
          .map((row) => row.name)
      )
  const advisorId = async (who: { id: number }) =>
    (await world.db.select({ id: t.advisor.id }).from(t.advisor).where(eq(t.advisor.accountId, who.id)))[0]!
      .id
  it('reads so, and is mailed, as is who has spoken in it', async () => {
    const { thread } = await say(imke, 'self', 'Who of you knows?', { named: [await advisorId(nell)] })
    const to = async (who: typeof imke, relation: 'self' | 'supportAdvisor') =>
      (await talkOf(who, relation)).find((one) => one.id === thread)!.remarks[0]!.to
    expect(await to(imke, 'self')).toEqual([{ name: 'Nell Fairweather', you: false }])
    expect(await to(nell, 'supportAdvisor')).toEqual([{ name: 'Nell Fairweather', you: true }])
    expect(await mailed(thread)).toEqual(['Nell Fairweather'])
    const answer = { to: 'thread' as const, thread, named: [] }
    await say(orla, 'programAdvisor', 'I do.', answer)
    expect((await mailed(thread)).sort()).toEqual(['Imke Varga', 'Nell Fairweather'])
    await say(imke, 'self', 'Thank you.', answer)
    expect((await mailed(thread)).sort()).toEqual(['Imke Varga', 'Nell Fairweather', 'Orla Denholt'])
  })
  it('is never the student among advisors, nor somebody without a part in it', async () => {
    const named = [await advisorId(orla)]
    const { thread } = await say(nell, 'supportAdvisor', 'Call me.', { advisorsOnly: true, named })
    expect(await mailed(thread)).toEqual(['Orla Denholt'])
    const hush = say(nell, 'supportAdvisor', 'Hush.', { advisorsOnly: true, named: ['student'] })
    await expect(hush).rejects.toMatchObject({ status: 422, code: 'noPart' })
    const stranger = await advisorId(await person(world.db, 'Casimir Boyle'))
    await expect(say(imke, 'self', 'Hello?', { named: [stranger] })).rejects.toMatchObject({ code: 'noPart' })
  })
})

describe('a review', () => {
  const ask = async (note: string | null) => {
    const now = await doing(imke)
    return within(world, (tx) =>
      askForReview(tx, now, world.catalogContext, { term: AUTUMN, note, answers: [] })
    )
  }
  it('is asked anew, answered with what is missing, and asked again', async () => {
    await ask('Is this too much?')
    await ask('With MATH 231 moved?')
    expect((await record()).reviews).toMatchObject([
      { term: AUTUMN, note: 'With MATH 231 moved?', answer: null }
    ])
    const advisor = await doing(orla)
    const notYet = () =>
      within(world, (tx) => answerNotYet(tx, advisor, { term: AUTUMN, missing: 'A course in writing.' }))
    await notYet()
    expect((await record()).reviews).toMatchObject([
      { term: AUTUMN, answer: { by: 'Orla Denholt', missing: 'A course in writing.' } }
    ])
    await expect(notYet()).rejects.toMatchObject({ status: 409, code: 'notAsked' })
    const desk = async () =>
      (await readDesk(world.db, orla, world.catalogContext, advisor.now)).rows.find(
        (row) => row.id === idOf(imke)
      )!
    expect((await desk()).reviews).toEqual([])
    await ask(null)
    expect((await desk()).reviews).toMatchObject([{ term: AUTUMN }])
  })
  it('is withdrawn once', async () => {
    const mine = await doing(imke)
    const withdraw = () => within(world, (tx) => withdrawReview(tx, mine, AUTUMN))
    await withdraw()
    await expect(withdraw()).rejects.toMatchObject({ status: 409, code: 'notAsked' })
  })
  it('is of a term with something planned', async () => {
    const mine = await doing(imke)
    const asked = (term: string) =>
      within(world, (tx) =>
        askForReview(tx, mine, world.catalogContext, { term: term as typeof AUTUMN, note: null, answers: [] })
      )
    await expect(asked('SU27')).rejects.toMatchObject({ status: 422 })
    await expect(asked('SP27')).rejects.toMatchObject({ code: 'termClosed' })
  })
})

describe('a sign-off', () => {
  const sign = async (said: object) => {
    const { now, zone } = await at(world)
    return within(world, (tx) =>
      signOffTerm(tx, orla, idOf(imke), signOffBody.parse({ term: AUTUMN, ...said }), { now, zone })
    )
  }
  it('says which end of the range, which course and which day cannot be', async () => {
    await expect(sign({ creditsMost: 40 })).rejects.toMatchObject({ fields: [{ field: 'creditsMost' }] })
    await expect(sign({ until: '2027-04-01' })).rejects.toMatchObject({ fields: [{ field: 'until' }] })
    expect(signOffBody.safeParse({ term: AUTUMN, creditsLeast: 9, creditsMost: 8 }).success).toBe(false)
    const unknown = { is: 'notBoth', course: 'ENDA 310', other: 'NONE 999' }
    await expect(sign({ conditions: [unknown] })).rejects.toMatchObject({ status: 422 })
    const same = { is: 'notBoth', course: 'ENDA 310', other: 'ENDA 310' }
    expect(signOffBody.safeParse({ term: AUTUMN, conditions: [same] }).success).toBe(false)
  })
  it('with conditions lets within them register, and says the condition to the others', async () => {
    await sign({
      creditsLeast: 6,
      creditsMost: 10,
      conditions: [{ is: 'notBoth', course: 'MATH 231', other: 'SOIL 220' }]
    })
    await everybodyAgrees(world.url)
    await setTime(world, OPENS)
    const courses = ['SOIL 220', 'MATH 231', 'ENDA 310', 'WRIT 215', 'ENDA 325'].map(courseCode)
    const receipt = await run(world.db, imke, idOf(imke), { term: AUTUMN, courses }, world.catalogContext)
    const codes = Object.fromEntries(
      receipt.lines.map((line) => [line.course, line.refusals.map((one) => one.code).join() || line.outcome])
    )
    expect(codes).toMatchObject({
      'SOIL 220': 'registered',
      'MATH 231': 'condition',
      'ENDA 310': 'registered',
      'WRIT 215': 'conditionCredits'
    })
    const { held } = await record()
    const sum = held.filter((one) => one.term === AUTUMN).reduce((total, one) => total + one.credits, 0)
    expect(sum).toBe(8)
  })
})

describe('what was agreed', () => {
  it('is made, ticked, opened and taken out, by either', async () => {
    const mine = await doing(imke)
    const lines = async () => (await readAgreed(world.db, [idOf(imke)])).get(idOf(imke))!
    const said = agreedBody.parse({
      what: 'Bring the list of field places',
      who: 'student',
      due: '2027-04-20'
    })
    const { line } = await within(world, (tx) => addAgreed(tx, mine, said))
    const own = async () => (await lines()).find((one) => one.id === line)
    const advisor = await doing(orla)
    await within(world, (tx) => tickAgreed(tx, advisor, line, true))
    expect(await own()).toMatchObject({ due: '2027-04-20', done: { by: 'Orla Denholt' } })
    await within(world, (tx) => tickAgreed(tx, mine, line, false))
    expect(await own()).toMatchObject({ done: null })
    await within(world, (tx) => dropAgreed(tx, mine, line))
    expect(await own()).toBeUndefined()
    await expect(within(world, (tx) => tickAgreed(tx, mine, line, true))).rejects.toMatchObject({
      code: 'noLine'
    })
  })
})
