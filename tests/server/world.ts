/** A database of its own with the demo in it, and short ways to act as its people. */
import { eq, sql } from 'drizzle-orm'
import mysql from 'mysql2/promise'
import { inject } from 'vitest'
import { courseCode, studentId, termCode, type CourseCode, type SectionCode, type StudentId } from '#core/ids'
import type { StudentRecord, StudentView } from '#shared/record/responses'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import {
  all,
  connect,
  inTransaction,
  type Connection,
  type Database,
  type Transaction
} from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { whoIs } from '#server/features/accounts/accounts'
import { readCatalogContext } from '#server/features/catalog/context'
import { signOffBody } from '#shared/advising/requests'
import { signOffTerm } from '#server/features/advising/signOff'
import { pick } from '#server/features/week/pick'
import { campusNow, setClock } from '#server/gateways/clock'
import { copyDatabase } from '../../tools/copyDatabase'

export const AUTUMN = termCode('AU27')
export const OPENS = Date.parse('2027-04-12T11:00:00Z')

export interface World {
  url: string
  db: Database
  catalogContext: CatalogContext
  close: Connection['close']
}

/** Files that run at the same time have databases of their own, even where they call them alike. */
const ofThisWorker = (name: string): string => `${name}_${process.env.VITEST_POOL_ID ?? 0}`

export async function freshDatabase(called: string): Promise<string> {
  const [server, name] = [inject('server'), ofThisWorker(called)]
  const connection = await mysql.createConnection({ uri: server })
  await connection.query('drop database if exists ??', [name])
  await connection.query('create database ?? character set utf8mb4 collate utf8mb4_uca1400_ai_ci', [name])
  await connection.end()
  return `${server}/${name}`
}

export async function demoWorld(called: string, lockWait = 10): Promise<World> {
  const [server, name] = [inject('server'), ofThisWorker(called)]
  await copyDatabase(server, 'seed', name)
  const url = `${server}/${name}`
  const { db, close } = connect(url, { connections: 60, lockWait })
  return { url, db, catalogContext: await readCatalogContext(db), close }
}

/** Takes whoever has a higher number out of the college, with all that is theirs but where rows only come (ledger, log): what reads everybody is quicker with few. */
export async function keepStudents({ url }: World, most: number): Promise<void> {
  const connection = await mysql.createConnection({ uri: url })
  try {
    const [tables] = await connection.query<mysql.RowDataPacket[]>(
      "select table_name as name from information_schema.columns where table_schema = database() and column_name = 'student_id' and table_name not in (select event_object_table from information_schema.triggers where trigger_schema = database() and event_manipulation = 'DELETE')"
    )
    await connection.query('set foreign_key_checks = 0')
    for (const { name } of tables) await connection.query('delete from ?? where student_id > ?', [name, most])
    await connection.query('delete from student where id > ?', [most])
  } finally {
    await connection.end()
  }
}

export async function person(db: Database, name: string): Promise<Who & { id: number }> {
  const [row] = await db.select({ id: t.account.id }).from(t.account).where(eq(t.account.name, name))
  if (!row) throw new Error(`the demo has no ${name}`)
  return whoIs(db, row.id)
}

/** A picture as its owner sees it, without anything of their own beside the record. */
export function viewOf(studentRecord: StudentRecord): StudentView {
  return {
    ...studentRecord,
    routes: [],
    marks: [],
    termNotes: [],
    talk: [],
    suggestions: [],
    sectionSuggestions: [],
    appointments: [],
    talkRecords: [],
    transcripts: [],
    habits: { wishes: [], travelHolds: false },
    calendarKey: null
  }
}

export function idOf(who: Who): StudentId {
  return studentId(who.student!)
}

export function within<T>({ db }: World, work: (tx: Transaction) => Promise<T>): Promise<T> {
  return inTransaction(db, work)
}

export function setTime(world: World, at: number): Promise<void> {
  return within(world, (tx) => setClock(tx, 'standing', at, world.catalogContext.terms))
}

export async function at(world: World): Promise<{ now: number; zone: string }> {
  return { now: await campusNow(world.db), zone: world.catalogContext.zone }
}

/** Rows of Autumn 2027 sections of a course, by number. */
export async function sectionsNumbered({ db }: World, course: string, ...numbers: string[]) {
  const rows = await db
    .select({ id: t.section.id, code: t.section.code, number: t.section.number })
    .from(t.section)
    .innerJoin(t.course, eq(t.course.id, t.section.courseId))
    .innerJoin(t.term, eq(t.term.id, t.section.termId))
    .where(all(eq(t.course.code, course), eq(t.term.code, AUTUMN)))
  return numbers.map((number) => {
    const row = rows.find((r) => r.number === number)
    if (!row) throw new Error(`${course} has no section ${number} in Autumn 2027`)
    return row
  })
}

export async function pickFor(
  world: World,
  who: Who,
  course: string,
  ...numbers: string[]
): Promise<CourseCode> {
  const code = courseCode(course)
  const sections = (await sectionsNumbered(world, course, ...numbers)).map((row) => row.code as SectionCode)
  const when = await at(world)
  await within(world, (tx) =>
    pick(tx, who, idOf(who), { term: AUTUMN, picks: [{ course: code, sections }] }, when)
  )
  return code
}

export async function signOff(world: World, advisor: Who, student: StudentId): Promise<void> {
  const when = await at(world)
  await within(world, (tx) => signOffTerm(tx, advisor, student, signOffBody.parse({ term: AUTUMN }), when))
}

/** A course of 3 credits that most may take, in several sections. */
export const LANGUAGE = courseCode('LANG 140')

/** A world in which Autumn 2027 is open to everybody from the opening on, without sign-off and without holds. */
export async function openWorld(name: string): Promise<World> {
  const world = await demoWorld(name, 2)
  const { db } = world
  await db.update(t.term).set({ signOffPolicy: 'none' }).where(eq(t.term.code, AUTUMN))
  await db.delete(t.programSignOff)
  await db.update(t.opening).set({ opensAt: new Date(OPENS) })
  await db.delete(t.hold)
  world.catalogContext = await readCatalogContext(db)
  await setTime(world, OPENS)
  return world
}

/** Resident undergraduates who hold, owe and have picked nothing, and have not taken the course. */
export async function newcomers({ db }: World, most: number): Promise<Who[]> {
  const free = await db
    .select({ account: t.student.accountId })
    .from(t.student)
    .where(
      sql`${t.student.level} = 'undergraduate' and ${t.student.residency} = 'resident'
        and ${t.student.id} not in (select student_id from ledger_entry)
        and ${t.student.id} not in (select student_id from record_course r join course c on c.id = r.course_id where c.code = ${LANGUAGE})
        and ${t.student.id} not in (select student_id from draft_week)`
    )
    .limit(most)
  return Promise.all(free.map((one) => whoIs(db, one.account)))
}
