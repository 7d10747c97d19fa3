/** The end of a record: transcripts are sent, an application stands, a degree is awarded and the record closed. */
import { eq, isNull } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { courseCode, termCode } from '#core/ids'
import type { Who } from '#shared/accounts/responses'
import type { TranscriptSent } from '#server/gateways/transcripts'
import { all } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import {
  applyToGraduate,
  awardDegree,
  mustBeOpen,
  readApplications,
  withdrawApplication
} from '#server/features/degree/graduation'
import { noteMilestone } from '#server/features/degree/milestones'
import { liftHold, readHolds } from '#server/features/offices/holds'
import { readStudentRecords } from '#server/features/record/studentRecords'
import {
  askForTranscript,
  readTranscriptOrders,
  sendTranscripts,
  withdrawTranscript
} from '#server/features/record/transcripts'
import { run } from '#server/features/registration/run'
import { changeRoute } from '#server/features/route/route'
import { readStudent } from '#shared/reading'
import { transcriptBody } from '#shared/record/requests'
import { transcriptOf } from '#shared/record/transcript'
import { transcriptFile } from '#shared/record/transcriptShape'
import { at, AUTUMN, demoWorld, idOf, person, within, type World } from './world'

let world: World
let edda: Who & { id: number }
let saoirse: Who & { id: number }
let bram: Who & { id: number }
beforeAll(async () => {
  world = await demoWorld('graduation')
  edda = await person(world.db, 'Edda Whitlock')
  saoirse = await person(world.db, 'Saoirse Lindqvist')
  bram = await person(world.db, 'Bram Ostrander')
})
afterAll(() => world.close())

const SPRING = termCode('SP28')
const as = async (who: Who & { id: number }) => ({
  who,
  student: who.student ? idOf(who) : idOf(saoirse),
  ...(await at(world))
})
const recordOf = async (who: Who) => (await readStudentRecords(world.db, [idOf(who)], 'self'))[0]!
const now = async () => (await at(world)).now

describe('a transcript', () => {
  const outside: TranscriptSent[] = []
  const taking = { send: (sent: TranscriptSent) => Promise.resolve(void outside.push(sent)) }
  const refusing = { send: () => Promise.reject(new Error('not there')) }
  const send = async (sender: typeof taking | typeof refusing) =>
    sendTranscripts(world.db, world.catalogContext, sender, await now())
  const ask = async (who: Who, said: { to: string; email: string; after?: string | null }) => {
    const doing = await as(who)
    return within(world, (tx) =>
      askForTranscript(tx, doing, transcriptBody.parse(said), world.catalogContext)
    )
  }
  const board = { to: 'Tarn Valley Water Board', email: 'people@tarnvalley.example' }

  it('is sent once, as the record is, whole and readable', async () => {
    await ask(saoirse, board)
    await send(refusing)
    expect((await readTranscriptOrders(world.db, idOf(saoirse)))[0]).toMatchObject({ sentAt: null })
    await send(taking)
    await send(taking)
    expect(outside).toHaveLength(1)
    const { transcript, to } = outside[0]!
    expect(to).toBe(board.to)
    expect(transcriptFile.parse(JSON.parse(JSON.stringify(transcript)))).toEqual(transcript)
    expect(transcript).toMatchObject({ official: true, student: { name: 'Saoirse Lindqvist' } })
    // By hand from her record: 3.0 x 4 and so on of the first term alone.
    const first = transcript.terms[0]!
    const points: Record<string, number> = { 'ENDA 110': 3, 'ENVI 101': 3.3, 'MATH 125': 2.3, 'WRIT 101': 3 }
    const sum = first.courses.reduce((all, one) => all + points[one.course]! * one.credits, 0)
    expect(first.gpa).toBe(Math.round((sum / first.attempted) * 100) / 100)
    expect((await readTranscriptOrders(world.db, idOf(saoirse)))[0]!.sentAt).toBe(await now())
  })

  it('is not sent while a hold stops it, and then by itself', async () => {
    await ask(bram, board)
    const before = outside.length
    await send(taking)
    expect(outside).toHaveLength(before)
    const hold = (await readHolds(world.db, edda)).open.find((one) => one.student === idOf(bram))!
    expect(hold.stopsTranscript).toBe(true)
    const when = await now()
    await within(world, (tx) => liftHold(tx, edda, hold.id, when))
    await send(taking)
    expect(outside).toHaveLength(before + 1)
  })

  it('waits for the grades of a term where it is asked to, and only where some are due', async () => {
    await expect(ask(bram, { ...board, after: 'AU26' })).rejects.toThrow('No grade is due')
    await ask(bram, { ...board, after: 'SP27' })
    const before = outside.length
    await send(taking)
    expect(outside).toHaveLength(before)
    await world.db
      .update(t.recordCourse)
      .set({ grade: 'B' })
      .where(eq(t.recordCourse.studentId, idOf(bram)))
    await send(taking)
    expect(outside).toHaveLength(before + 1)
    expect(outside.at(-1)!.transcript.terms.at(-1)).toMatchObject({ term: 'SP27', gpa: 3 })
  })

  it('is asked for once, and taken back while it waits, by nobody else', async () => {
    const to = { to: 'Merrow Archive', email: 'desk@merrow.example', after: 'SP27' }
    const { transcript } = await ask(saoirse, to)
    await expect(ask(saoirse, to)).rejects.toThrow('waits to be sent already')
    const [other, own] = [await as(bram), await as(saoirse)]
    await expect(within(world, (tx) => withdrawTranscript(tx, other, transcript))).rejects.toThrow('no such')
    await within(world, (tx) => withdrawTranscript(tx, own, transcript))
    await expect(within(world, (tx) => withdrawTranscript(tx, own, transcript))).rejects.toThrow('already')
    expect(await readTranscriptOrders(world.db, idOf(saoirse))).toHaveLength(1)
  })
})

describe('an application to graduate', () => {
  const apply = async (term = SPRING) => {
    const doing = await as(saoirse)
    return within(world, (tx) => applyToGraduate(tx, doing, term, world.catalogContext))
  }
  const award = async () => {
    const { catalogContext } = world
    const when = await now()
    const [application] = await readApplications(world.db, { catalogContext, now: when })
    return within(world, (tx) => awardDegree(tx, edda, application!.id, { catalogContext, now: when }))
  }

  it('says what is in the way, and stands once nothing is', async () => {
    await expect(apply()).rejects.toThrow('10 credits of your choice: 2 credits of it are needed.')
    const doing = await as(saoirse)
    const { route } = await recordOf(saoirse)
    const planned = { course: courseCode('ARTS 120'), term: SPRING, credits: 3, note: null, locked: false }
    const made = { route: route.id, version: route.version, change: { kind: 'add' as const, planned } }
    await within(world, (tx) => changeRoute(tx, doing, made))
    await expect(apply(termCode('AU27'))).rejects.toThrow('complete at the end of Spring 2028')
    await apply()
    await expect(apply()).rejects.toThrow('stands already')
    await within(world, (tx) => withdrawApplication(tx, doing))
    await expect(within(world, (tx) => withdrawApplication(tx, doing))).rejects.toThrow(
      'No application waits'
    )
    await apply()
    expect((await recordOf(saoirse)).graduations).toMatchObject([
      { term: 'SP28', state: 'asked', awarded: null }
    ])
  })

  it('is awarded only when all is earned and no seat is held, and closes the record', async () => {
    await expect(award()).rejects.toThrow('Not all is earned yet')
    const record = await recordOf(saoirse)
    await within(world, () => mustBeOpen(world.db, idOf(saoirse)))
    await world.db
      .update(t.recordCourse)
      .set({ grade: 'B' })
      .where(eq(t.recordCourse.studentId, idOf(saoirse)))
    const courses = await world.db
      .select({ id: t.course.id, code: t.course.code, credits: t.course.credits })
      .from(t.course)
    const terms = await world.db.select({ id: t.term.id, code: t.term.code }).from(t.term)
    for (const { course, term } of record.route.courses) {
      const of = courses.find((one) => one.code === course)!
      const termId = terms.find((one) => one.code === term)!.id
      await world.db.insert(t.recordCourse).values({
        ...{
          studentId: idOf(saoirse),
          courseId: of.id,
          termId,
          credits: of.credits,
          grade: 'B',
          origin: 'here'
        }
      })
    }
    const [other] = await world.db
      .select({ id: t.section.id })
      .from(t.section)
      .innerJoin(t.course, eq(t.course.id, t.section.courseId))
      .innerJoin(t.term, eq(t.term.id, t.section.termId))
      .where(all(eq(t.course.code, 'MUSI 102'), eq(t.term.code, AUTUMN), isNull(t.section.parentId)))
    await world.db
      .insert(t.registration)
      .values({ studentId: idOf(saoirse), sectionId: other!.id, registeredAt: new Date(), byId: saoirse.id })
    await expect(award()).rejects.toThrow('A portfolio shown')
    const noting = await as(edda)
    const note = (reached: boolean) =>
      within(world, (tx) => noteMilestone(tx, noting, 'envd-portfolio', reached))
    await note(true)
    await expect(note(true)).rejects.toThrow('already')
    await expect(within(world, (tx) => noteMilestone(tx, noting, 'nonesuch', true))).rejects.toThrow(
      'No program'
    )
    await expect(award()).rejects.toThrow('Seats or places in line are held')
    // What has its grade is no seat that is held any more.
    await world.db.delete(t.registration).where(eq(t.registration.sectionId, other!.id))
    await world.db.delete(t.waitlistPlace).where(eq(t.waitlistPlace.studentId, idOf(saoirse)))
    // A run that is under way could still take one.
    const [autumn] = terms.filter((one) => one.code === AUTUMN)
    await world.db.insert(t.receipt).values({
      ...{ studentId: idOf(saoirse), termId: autumn!.id, byId: saoirse.id },
      ...{ at: new Date(), begunAt: new Date(), endedAt: null }
    } as typeof t.receipt.$inferInsert)
    await expect(award()).rejects.toThrow('under way')
    const own = eq(t.receipt.studentId, idOf(saoirse))
    await world.db.update(t.receipt).set({ endedAt: new Date() }).where(own)
    await award()
    await expect(award()).rejects.toThrow()
    await expect(mustBeOpen(world.db, idOf(saoirse))).rejects.toThrow('record closed')
    const asked = { term: AUTUMN, courses: [courseCode('HERI 105')] }
    await expect(run(world.db, saoirse, idOf(saoirse), asked, world.catalogContext)).rejects.toThrow(
      'record closed'
    )
    const closed = await recordOf(saoirse)
    expect(closed.graduations).toMatchObject([{ state: 'awarded', awarded: { by: 'Edda Whitlock' } }])
    const transcript = transcriptOf({
      student: closed,
      reading: readStudent(closed, world.catalogContext, await now()),
      catalogContext: world.catalogContext,
      now: await now(),
      institution: 'Harrowmere College',
      isOfficial: false
    })
    expect(transcript.programs).toMatchObject([{ awarded: '2027-04-09' }])
    const mails = await world.db
      .select({ action: t.eventLog.action })
      .from(t.mail)
      .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
      .where(eq(t.mail.accountId, saoirse.id))
    expect(mails.map((one) => one.action)).toContain('graduation.awarded')
  })
})
