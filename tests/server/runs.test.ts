/** A run that is cut off, asked for again or held up: the receipt says what is held, and each line is tried once. */
import { eq, inArray, sql } from 'drizzle-orm'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { courseCode } from '#core/ids'
import type { Who } from '#shared/accounts/responses'
import type { Receipt } from '#shared/registration/responses'
import { connect, type Database, type Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { everyMinute } from '#server/jobs/everyMinute'
import { run } from '#server/features/registration/run'
import { readReceipts } from '#server/features/registration/sheet'
import {
  AUTUMN,
  demoWorld,
  idOf,
  OPENS,
  person,
  sectionsNumbered,
  setTime,
  signOff,
  type World
} from './world'

let world: World
let imke: Who
beforeAll(async () => {
  world = await demoWorld('runs', 1)
  imke = await person(world.db, 'Imke Varga')
  await signOff(world, await person(world.db, 'Orla Denholt'), idOf(imke))
  await setTime(world, OPENS)
})
afterAll(() => world.close())

/** Her seats and receipts as before the opening. */
beforeEach(async () => {
  const { db } = world
  const held = await db
    .select({ section: t.registration.sectionId })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(sql`${t.registration.studentId} = ${idOf(imke)} and ${t.term.code} = ${AUTUMN}`)
  const ids = held.map((row) => row.section)
  if (ids.length) {
    await db
      .delete(t.registration)
      .where(sql`${t.registration.studentId} = ${idOf(imke)} and ${inArray(t.registration.sectionId, ids)}`)
    await db
      .update(t.section)
      .set({ taken: sql`${t.section.taken} - 1` })
      .where(inArray(t.section.id, ids))
  }
  await db.delete(t.receiptLine)
  await db.delete(t.receipt)
})

const LINES = ['ENDA 310', 'MATH 231', 'WRIT 215']
const go = (key?: string, courses = LINES, db = world.db) =>
  run(db, imke, idOf(imke), { term: AUTUMN, courses: courses.map(courseCode), key }, world.catalogContext)
const outcomes = ({ lines }: Receipt) => lines.map((line) => `${line.course} ${line.outcome}`)
const receipts = () => readReceipts(world.db, idOf(imke), AUTUMN)
/** Courses of which she holds a seat, as the registrations say. */
async function held(): Promise<string[]> {
  const rows = await world.db
    .selectDistinct({ course: t.course.code })
    .from(t.registration)
    .innerJoin(t.section, eq(t.section.id, t.registration.sectionId))
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(sql`${t.registration.studentId} = ${idOf(imke)} and ${t.term.code} = ${AUTUMN}`)
  return rows.map((row) => row.course).sort()
}
/** What the receipts call registered is what is held. */
async function agrees(): Promise<void> {
  const told = (await receipts()).flatMap(({ lines }) =>
    lines.filter((line) => line.outcome === 'registered').map((line) => line.course)
  )
  expect(told.sort()).toEqual(await held())
}

/** A database that is lost after some transactions, as by a server that is killed. */
function lostAfter(transactions: number): Database {
  let made = 0
  return new Proxy(world.db, {
    get(target, name) {
      if (name !== 'transaction') return Reflect.get(target, name) as unknown
      return (...given: Parameters<Database['transaction']>) =>
        made++ < transactions ? target.transaction(...given) : Promise.reject(new Error('killed'))
    }
  })
}

describe('a run that is asked for again', () => {
  it('is one run with one receipt, one after the other and at the same time', async () => {
    const together = await Promise.all([go('the-same-run'), go('the-same-run'), go('the-same-run')])
    const later = await go('the-same-run')
    for (const receipt of [...together, later]) expect(receipt.id).toBe(later.id)
    expect(outcomes(later)).toEqual(LINES.map((course) => `${course} registered`))
    expect(later.ended).toBe(true)
    expect(await receipts()).toHaveLength(1)
    expect(await held()).toEqual(LINES)
  })

  it('is one run where it is pressed in two windows at once', async () => {
    const [one, other] = await Promise.all([go('first-window'), go('second-window')])
    expect(outcomes(one!)).toEqual(outcomes(other!))
    await agrees()
  })

  it('is refused where its key was of another run, which stays as it was', async () => {
    await go('a-run-of-three')
    await expect(go('a-run-of-three', ['MATH 231'])).rejects.toMatchObject({ status: 422, code: 'keyUsed' })
    expect(await receipts()).toHaveLength(1)
  })
})

describe('a run that is cut off', () => {
  it('says what is held at that moment, and goes on where it was when it is asked for again', async () => {
    await expect(go('cut-off-run', LINES, lostAfter(2))).rejects.toThrow('killed')
    const [open] = await receipts()
    expect(open!.ended).toBe(false)
    expect(outcomes(open!)).toEqual(['ENDA 310 registered', 'MATH 231 waiting', 'WRIT 215 waiting'])
    await agrees()
    const receipt = await go('cut-off-run')
    expect(receipt.id).toBe(open!.id)
    expect(outcomes(receipt)).toEqual(LINES.map((course) => `${course} registered`))
    await agrees()
  })

  it('is ended by the server once it is long ago, and its waiting lines are not tried any more', async () => {
    await expect(go('left-alone', LINES, lostAfter(2))).rejects.toThrow('killed')
    await everyMinute(world.db, world.catalogContext)
    expect((await receipts())[0]!.ended).toBe(false)
    await world.db.update(t.receipt).set({ begunAt: new Date(Date.now() - 61_000) })
    await Promise.all([
      everyMinute(world.db, world.catalogContext),
      everyMinute(world.db, world.catalogContext)
    ])
    const ended = ['ENDA 310 registered', 'MATH 231 notTried', 'WRIT 215 notTried']
    expect((await receipts())[0]!.ended).toBe(true)
    expect(outcomes((await receipts())[0]!)).toEqual(ended)
    expect(outcomes(await go('left-alone'))).toEqual(ended)
    await agrees()
  })

  it('makes way for a new one, with which nothing of it comes back', async () => {
    await expect(go('the-old-one', LINES, lostAfter(1))).rejects.toThrow('killed')
    await world.db.update(t.receipt).set({ begunAt: new Date(Date.now() - 61_000) })
    expect(outcomes(await go('the-new-one', ['MATH 231']))).toEqual(['MATH 231 registered'])
    const [, old] = await receipts()
    expect(outcomes(old!)).toEqual(LINES.map((course) => `${course} notTried`))
    expect(await held()).toEqual(['MATH 231'])
  })
})

describe('a seat that is locked for too long', () => {
  it('leaves its line untried, says so, and holds up none of the others', async () => {
    const [section] = await sectionsNumbered(world, 'MATH 231', '01')
    let letGo!: () => void
    const gone = new Promise<void>((resolve) => (letGo = resolve))
    let locked!: () => void
    const isLocked = new Promise<void>((resolve) => (locked = resolve))
    const other = world.db.transaction(async (tx) => {
      await tx.select().from(t.section).where(eq(t.section.id, section!.id)).for('update')
      locked()
      await gone
    })
    await isLocked
    const receipt = await go('held-up-run').finally(letGo)
    await other
    expect(outcomes(receipt)).toEqual(['ENDA 310 registered', 'MATH 231 notTried', 'WRIT 215 registered'])
    expect(receipt.ended).toBe(true)
    await agrees()
    expect(outcomes(await go('once-more', ['MATH 231']))).toEqual(['MATH 231 registered'])
    await agrees()
  })
})

describe('a line of one section', () => {
  /** As a statement is, its values left out. */
  const isLockOfSections = (statement: string) => /from `section` .* for update$/.test(statement)

  it('asks little of the database while its section is locked', async () => {
    const said: string[] = []
    const { db, close } = connect(world.url, { logQuery: (statement) => said.push(statement) })
    const receipt = await go(undefined, ['ENDA 310'], db)
    await close()
    expect(outcomes(receipt)).toEqual(['ENDA 310 registered'])
    const from = said.findIndex(isLockOfSections)
    const until = said.findIndex((statement, i) => i > from && /for update$/.test(statement))
    const locked = said.slice(from + 1, until).filter((statement) => !/^(begin|commit)$/.test(statement))
    expect(locked.some((statement) => statement.startsWith('insert into `registration`'))).toBe(true)
    expect(locked.length, locked.join('\n')).toBeLessThanOrEqual(10)
  })

  /** Does something after the first line of a run has gone through and before the second is tried. */
  const between = (work: (tx: Transaction) => Promise<unknown>) =>
    world.db.transaction(async (tx) => {
      await tx.execute(sql`select id from section where code in (select section from (
        select s.code section from section s join course c on c.id = s.course_id join term t on t.id = s.term_id
        where c.code = 'ENDA 310' and t.code = ${AUTUMN}) of) for update`)
      await new Promise((resolve) => setTimeout(resolve, 400))
      await work(tx)
    })

  it('takes in what it took itself, and what others change of the seats meanwhile', async () => {
    const [full] = await sectionsNumbered(world, 'MATH 231', '01')
    const [row] = await world.db.select().from(t.section).where(eq(t.section.id, full!.id))
    await world.db
      .update(t.section)
      .set({ capacity: row!.taken + row!.offered })
      .where(eq(t.section.id, full!.id))
    const said = between(async (tx) => {
      const [term] = await tx.select().from(t.term).where(eq(t.term.code, AUTUMN))
      await tx.insert(t.fallback).values({
        studentId: idOf(imke),
        termId: term!.id,
        courseId: row!.courseId,
        list: [{ kind: 'line' }]
      })
      await logEvent(tx, {
        at: OPENS,
        account: imke.id,
        student: idOf(imke),
        action: 'fallbacks.changed',
        after: {}
      })
    })
    await new Promise((resolve) => setTimeout(resolve, 100))
    const receipt = await go(undefined, LINES)
    await said
    expect(outcomes(receipt)).toEqual(['ENDA 310 registered', 'MATH 231 inLine', 'WRIT 215 registered'])
    await world.db.delete(t.fallback)
    await world.db.delete(t.waitlistPlace).where(eq(t.waitlistPlace.studentId, idOf(imke)))
    await world.db
      .update(t.section)
      .set({ capacity: row!.capacity, waiting: row!.waiting })
      .where(eq(t.section.id, full!.id))
    await agrees()
  })

  it('is judged by what has changed since the record was read', async () => {
    // A hold is placed, as the log tells.
    const placed = between(async (tx) => {
      await tx.insert(t.hold).values({
        studentId: idOf(imke),
        title: 'Library fine',
        office: 'the library',
        stopsRegistration: true,
        howToLift: 'Pay it.',
        placedAt: new Date(OPENS)
      })
      await logEvent(tx, {
        at: OPENS,
        account: null,
        student: idOf(imke),
        action: 'signOff.given',
        after: {}
      })
    })
    await new Promise((resolve) => setTimeout(resolve, 100))
    const receipt = await go(undefined, ['ENDA 310', 'MATH 231'])
    await placed
    const codes = receipt.lines.map((line) => line.refusals.map((one) => one.code))
    await world.db.delete(t.hold).where(eq(t.hold.studentId, idOf(imke)))
    expect(codes.at(-1)).toEqual(['hold'])
    await agrees()
  })
})

describe('a run that the registrar makes for a student', () => {
  it('goes by the same decision; the receipt, the log and a mail say who made it and how the student agreed', async () => {
    const edda = await person(world.db, 'Edda Whitlock')
    const consent = 'On the phone, at 7:10; called back.'
    const asked = { term: AUTUMN, courses: LINES.map(courseCode), key: 'for-imke', consent }
    const made = await run(world.db, edda, idOf(imke), asked, world.catalogContext)
    expect(made).toMatchObject({ by: 'Edda Whitlock', consent, ended: true })
    const own = (receipt: Receipt) => receipt.lines.map(({ course, outcome }) => ({ course, outcome }))
    // The same lines end as they do for her.
    expect(own(made).every((line) => line.outcome === 'registered')).toBe(true)
    const again = await run(world.db, edda, idOf(imke), asked, world.catalogContext)
    expect(again.id).toBe(made.id)
    const told = await world.db
      .select({ after: t.eventLog.after, by: t.eventLog.accountId, to: t.mail.accountId })
      .from(t.mail)
      .innerJoin(t.eventLog, eq(t.eventLog.id, t.mail.eventId))
      .where(eq(t.eventLog.action, 'run.forStudent'))
    expect(told).toEqual([
      { after: { term: AUTUMN, receipt: made.id, consent, by: 'Edda Whitlock' }, by: edda.id, to: imke.id }
    ])
  })
})
