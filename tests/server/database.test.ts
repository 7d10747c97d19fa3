import { readFileSync } from 'node:fs'
import { eq, gte, sql } from 'drizzle-orm'
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { all, DatabaseError, inTransaction, withoutParameters } from '#server/db/connect'
import { migrateDatabase } from '#server/db/migrate'
import * as t from '#server/db/schema/index'
import { demoWorld, freshDatabase, type World } from './world'

let world: World
beforeAll(async () => {
  world = await demoWorld('constraints')
})
afterAll(() => world.close())

/** The database's own code for refusing a statement. */
async function refusal(work: Promise<unknown>): Promise<string> {
  const error = await work.then(
    () => undefined,
    (e: unknown) => withoutParameters(e)
  )
  if (!(error instanceof DatabaseError)) throw new Error('expected the database to refuse this')
  return error.code
}

describe('migrations', () => {
  it('are applied once when two servers start together', async () => {
    const url = await freshDatabase('together')
    await Promise.all([migrateDatabase(url), migrateDatabase(url), migrateDatabase(url)])
    const connection = await mysql.createConnection({ uri: url })
    const [rows] = await connection.query('select count(*) as n from __drizzle_migrations')
    const [tables] = await connection.query(
      "select count(*) as n from information_schema.tables where table_schema = database() and engine = 'InnoDB' and table_collation like 'utf8mb4%'"
    )
    await connection.end()
    const journal = new URL('../../server/db/migrations/meta/_journal.json', import.meta.url)
    const { entries } = JSON.parse(readFileSync(journal, 'utf8')) as { entries: unknown[] }
    expect((rows as { n: number }[])[0]!.n).toBe(entries.length)
    expect((tables as { n: number }[])[0]!.n).toBeGreaterThan(45)
  })
})

describe('requests of before they were one kind of thing', () => {
  it('are there with their states, whom they wait for, and how they were handed on', async () => {
    const connection = await mysql.createConnection({ uri: await freshDatabase('before_requests') })
    const run = async (name: string) => {
      const file = new URL(`../../server/db/migrations/${name}.sql`, import.meta.url)
      for (const one of readFileSync(file, 'utf8').split('--> statement-breakpoint'))
        await connection.query(one)
    }
    const journal = new URL('../../server/db/migrations/meta/_journal.json', import.meta.url)
    const { entries } = JSON.parse(readFileSync(journal, 'utf8')) as {
      entries: { idx: number; tag: string }[]
    }
    for (const { tag } of entries.filter(({ idx }) => idx < 32)) await run(tag)
    await connection.query('set foreign_key_checks = 0')
    await connection.query(
      `insert into permission (id, student_id, section_id, kind, state, reason, asked_at, against, forwarded_at, forwarded_by_id, by_id, decided_at, words)
       values (3, 1, 7, 'full', 'asked', 'a', '2027-04-01', '{"code":"reserved"}', null, null, null, null, null),
         (4, 1, 8, 'clash', 'given', 'b', '2027-04-02', null, '2027-04-03', 5, 6, '2027-04-04', 'so be it')`
    )
    await connection.query(
      `insert into waiver (student_id, course_id, state, reason, asked_at, answered_by_id, answered_at)
       values (2, 9, 'granted', 'c', '2027-04-05', 6, '2027-04-06')`
    )
    await run('0032_requests')
    const [rows] = await connection.query(
      `select r.id, r.student_id as student, r.kind, r.section_id as section, r.course_id as course, r.state,
         r.waits_for as \`waits\`, r.by_id as \`by\`, r.words, h.by_id as handed, h.handed_to as \`to\`
       from request r left join request_handed_on h on h.request_id = r.id order by r.id`
    )
    await connection.end()
    const none = { course: null, by: null, words: null, handed: null, to: null }
    expect(rows).toEqual([
      { ...none, id: 3, student: 1, kind: 'reserved', section: 7, state: 'asked', waits: 'registrar' },
      {
        ...{ id: 4, student: 1, kind: 'clash', section: 8, course: null, state: 'given', waits: 'registrar' },
        ...{ by: 6, words: 'so be it', handed: 5, to: 'registrar' }
      },
      {
        ...{ ...none, id: 5, student: 2, kind: 'waiver', section: null, course: 9, state: 'given' },
        ...{ waits: 'programAdvisor', by: 6 }
      }
    ])
  })
})

describe('the database refuses', () => {
  it('more seats taken than there are', async () => {
    const [section] = await world.db.select().from(t.section).limit(1)
    const over = world.db
      .update(t.section)
      .set({ taken: section!.capacity + 1 })
      .where(eq(t.section.id, section!.id))
    expect(await refusal(over)).toBe('ER_CONSTRAINT_FAILED')
  })
  it('a second registration of a student in a section', async () => {
    const [row] = await world.db.select().from(t.registration).limit(1)
    const { studentId, sectionId, registeredAt, byId } = row!
    expect(
      await refusal(world.db.insert(t.registration).values({ studentId, sectionId, registeredAt, byId }))
    ).toBe('ER_DUP_ENTRY')
  })
  it('a registration in a section that is not there', async () => {
    const stray = { studentId: 1, sectionId: 999_999, registeredAt: new Date(), byId: 1 }
    expect(await refusal(world.db.insert(t.registration).values(stray))).toBe('ER_NO_REFERENCED_ROW_2')
  })
  it('two chosen routes of a student', async () => {
    const second = { studentId: 1, name: 'Another', chosen: true, changedAt: new Date(), changedBy: 1 }
    expect(await refusal(world.db.insert(t.route).values(second))).toBe('ER_DUP_ENTRY')
    await world.db.insert(t.route).values({ ...second, chosen: null })
  })
  it('changes of the event log', async () => {
    await world.db.insert(t.eventLog).values({ at: new Date(), action: 'record.read' })
    expect(
      await refusal(
        world.db
          .update(t.eventLog)
          .set({ action: 'other' })
          .where(sql`true`)
      )
    ).toBe('ER_SIGNAL_EXCEPTION')
    expect(await refusal(world.db.delete(t.eventLog).where(sql`true`))).toBe('ER_SIGNAL_EXCEPTION')
  })
  it('text that does not fit, in strict mode', async () => {
    const long = { name: 'x'.repeat(500), timeZone: 'UTC' }
    expect(await refusal(world.db.insert(t.institution).values(long))).toBe('ER_DATA_TOO_LONG')
  })
})

describe('the guards of queries', () => {
  it('refuse a missing condition, which would reach every row', () => {
    expect(() => all()).toThrow('every condition')
    expect(() => all(undefined)).toThrow('every condition')
    expect(() => all(eq(t.student.id, 1), undefined)).toThrow('every condition')
  })
  it('keep parameters out of messages', async () => {
    const failing = inTransaction(world.db, (tx) =>
      tx.insert(t.institution).values({ name: 'private'.repeat(60), timeZone: 'UTC' })
    )
    await expect(failing).rejects.toThrow(DatabaseError)
    await expect(failing).rejects.not.toThrow(/private/)
  })
})

describe('the demo', () => {
  it('is as large as it says', async () => {
    const count = (table: Parameters<typeof world.db.$count>[0]) => world.db.$count(table)
    expect(await count(t.course)).toBe(160)
    expect(await count(t.subject)).toBe(20)
    expect(await count(t.programVersion)).toBe(5)
    expect(await count(t.student)).toBeGreaterThanOrEqual(300)
    expect(await count(t.advisor)).toBe(8)
    expect(await count(t.section)).toBeGreaterThan(400)
  })
  it('counts as taken exactly the seats that somebody holds; of terms that are over only the counts are kept', async () => {
    const rows = await world.db
      .select({ taken: t.section.taken, held: sql<number>`count(${t.registration.id})` })
      .from(t.section)
      .innerJoin(t.term, eq(t.term.id, t.section.termId))
      .leftJoin(t.registration, eq(t.registration.sectionId, t.section.id))
      .where(gte(t.term.startsOn, '2027-01-01'))
      .groupBy(t.section.id)
    expect(rows.length).toBeGreaterThan(400)
    expect(rows.filter((row) => row.taken !== Number(row.held))).toEqual([])
  })
  it('has no teacher and no room in two places at once', async () => {
    const meetings = await world.db
      .select({ m: t.meeting, term: t.section.termId, session: t.session.half })
      .from(t.meeting)
      .innerJoin(t.section, eq(t.section.id, t.meeting.sectionId))
      .innerJoin(t.session, eq(t.session.id, t.section.sessionId))
    const doubled = meetings.filter((a, i) =>
      meetings
        .slice(i + 1)
        .some(
          (b) =>
            a.m.roomId !== null &&
            a.m.roomId === b.m.roomId &&
            a.term === b.term &&
            a.m.startsMin < b.m.endsMin &&
            b.m.startsMin < a.m.endsMin &&
            [...a.m.days].some((day) => b.m.days.includes(day)) &&
            a.m.fromOn <= b.m.toOn &&
            b.m.fromOn <= a.m.toOn
        )
    )
    expect(meetings.length).toBeGreaterThan(300)
    expect(doubled.length).toBe(0)
  })
})
