/**
 * Storms of runs that are cut off: the server, its connections, the database. What was acknowledged is there, every seat
 * has its receipt, nothing is oversold, and what was cut off is finished or closed when it is asked for again.
 */
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { eq, sql } from 'drizzle-orm'
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { connect } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { readCatalogContext } from '#server/features/catalog/context'
import { disagreements } from '#server/features/registration/reconcile'
import { run } from '#server/features/registration/run'
import type { Who } from '#shared/accounts/responses'
import type { Receipt } from '#shared/registration/responses'
import { copyDatabase } from '../../../tools/copyDatabase'
import { startMariadb, type PrivateServer } from '../../../tools/mariadb'
import { prepareDatabase } from '../../../tools/site'
import { everybodyAgrees } from '../../agreed'
import { LONG } from '../../long'
import { AUTUMN, idOf, LANGUAGE, newcomers, OPENS, pickFor, setTime, type World } from '../world'

const ROUNDS = LONG ? 30 : 1
const CUTS = ['the server', 'the database', 'its connections'] as const
const COURSES = [LANGUAGE, 'MUSI 102', 'WRIT 101']
const SEATS = 6

const folder = mkdtempSync(join(tmpdir(), 'ridgeway-kills-'))
let server: PrivateServer
let base: string
let people: Who[]
/** Numbers below a bound, the same for the same run of the test (Knuth, MMIX). */
let state = 20270412n
const below = (bound: number) => {
  state = (state * 6364136223846793005n + 1442695040888963407n) & 0xffffffffffffffffn
  return Number((state >> 33n) % BigInt(bound))
}

async function worldOf(name: string): Promise<World> {
  const url = `${base}/${name}`
  const { db, close } = connect(url, { connections: 8, lockWait: 5 })
  return { url, db, close, catalogContext: await readCatalogContext(db) }
}

beforeAll(async () => {
  server = await startMariadb(folder)
  const url = await server.database('calm')
  base = url.slice(0, url.lastIndexOf('/'))
  await prepareDatabase(url, () => undefined, { demo: true })
  await everybodyAgrees(url)
  const { db, close } = connect(url)
  await db.update(t.term).set({ signOffPolicy: 'none' }).where(eq(t.term.code, AUTUMN))
  await db.delete(t.programSignOff)
  await db.update(t.opening).set({ opensAt: new Date(OPENS) })
  await db.delete(t.hold)
  const [writing] = await db.select().from(t.course).where(eq(t.course.code, 'WRIT 101'))
  await db.delete(t.recordCourse).where(eq(t.recordCourse.courseId, writing!.id))
  await close()
  const world = await worldOf('calm')
  await setTime(world, OPENS)
  people = await newcomers(world, 14)
  for (const who of people) {
    for (const course of COURSES) await pickFor(world, who, course, '01')
  }
  await world.db
    .update(t.section)
    .set({ capacity: sql`taken + offered + ${SEATS}` })
    .where(
      sql`course_id in (select id from course where code in (${LANGUAGE}, 'MUSI 102')) and number = '01'`
    )
  await world.close()
}, 120_000)
afterAll(async () => {
  await server.stop()
  rmSync(folder, { recursive: true, force: true })
})

/** Lets a storm rage until so many receipts are out, cuts, and returns what was acknowledged. */
async function rage(url: string, cut: (typeof CUTS)[number], after: number): Promise<Map<number, Receipt>> {
  const told = new Map<number, Receipt>()
  const ids = people.map((who) => who.student!).join(',')
  const script = fileURLToPath(new URL('storm.ts', import.meta.url))
  const again = cut === 'the server' ? 'once' : 'again'
  const child = spawn(process.execPath, ['--import', 'tsx', script, url, ids, COURSES.join(','), again], {
    stdio: ['ignore', 'pipe', 'ignore']
  })
  const over = new Promise<void>((resolve) => child.on('close', () => resolve()))
  let rest = ''
  let isCut = false
  child.stdout.on('data', (chunk: Buffer) => {
    const lines = (rest + String(chunk)).split('\n')
    rest = lines.pop()!
    for (const line of lines) {
      const { student, receipt } = JSON.parse(line) as { student: number; receipt: Receipt }
      told.set(student, receipt)
    }
    if (told.size >= after && !isCut) {
      isCut = true
      void doCut()
    }
  })
  async function doCut() {
    if (cut === 'the server') child.kill('SIGKILL')
    else if (cut === 'the database') process.kill(server.pid()!, 'SIGKILL')
    else {
      const connection = await mysql.createConnection({ uri: base })
      const [rows] = await connection.query(
        'select id from information_schema.processlist where db = ? and id <> connection_id()',
        [new URL(url).pathname.slice(1)]
      )
      for (const { id } of rows as { id: number }[])
        await connection.query(`kill connection ${id}`).catch(() => {})
      await connection.end()
    }
  }
  await over
  expect(isCut).toBe(true)
  return told
}

/** Once it takes connections again. */
async function whenBack(): Promise<void> {
  for (;;)
    try {
      const connection = await mysql.createConnection({ uri: base })
      await connection.end()
      return
    } catch {
      await new Promise((resolve) => setTimeout(resolve, 200))
    }
}

describe('a storm that is cut off', () => {
  it.each(Array.from({ length: ROUNDS }, (_, round) => [round + 1, CUTS[round % CUTS.length]!] as const))(
    'loses nothing that was acknowledged (round %i, %s)',
    async (round, cut) => {
      const name = `storm${round}`
      await copyDatabase(base, 'calm', name)
      const told = await rage(`${base}/${name}`, cut, 1 + below(people.length - 4))
      await whenBack()
      const world = await worldOf(name)
      for (const who of people) {
        const student = idOf(who)
        const asked = { term: AUTUMN, courses: COURSES as never[], key: `storm ${student}` }
        const receipt = await run(world.db, who, student, asked, world.catalogContext)
        expect(receipt.ended).toBe(true)
        const acknowledged = told.get(student)
        if (acknowledged) expect(receipt).toEqual(acknowledged)
      }
      expect(await disagreements(world.db)).toEqual([])
      const [row] = (await world.db.execute(sql`
        select sum(taken + offered > capacity) as oversold,
          (select count(*) from registration r join section s on s.id = r.section_id join course c on c.id = s.course_id
            join term t on t.id = s.term_id where t.code = ${AUTUMN} and c.code = ${LANGUAGE}) as seats
        from section`)) as unknown as [{ oversold: string; seats: number }[]]
      // All of the few seats are taken, by exactly as many.
      expect([Number(row[0]!.oversold), row[0]!.seats]).toEqual([0, SEATS])
      await world.close()
    },
    120_000
  )
})
