/** Speed of a term of 6,000 sections: read at the server, searched and drawn in Chromium. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mysql, { type Connection, type ResultSetHeader, type RowDataPacket } from 'mysql2/promise'
import { DEMO_PASSWORD } from '../demo/staff'
import { connect } from '#server/db/connect'
import { offerOf } from '#server/features/sections/sections'
import { wholeOffer } from '#server/features/sections/wholeOffer'
import { inOrder, launched, ROOT } from './benchBrowser'
import { freePort, startMariadb } from './mariadb'
import { prepareDatabase, startSite } from './site'

const TERM = 'AU27'
const SECTIONS = 6_000
const TIMES = 15

type Row = RowDataPacket & Record<string, unknown>

/** Copies the term's sections, with meetings and instructors, until there are so many. */
async function multiply(connection: Connection): Promise<number> {
  const query = async (sql: string, values: unknown[] = []) => (await connection.query<Row[]>(sql, values))[0]
  const sections = await query(
    'select s.* from section s join term t on t.id = s.term_id where t.code = ? order by s.id',
    [TERM]
  )
  const ids = sections.map((row) => row.id as number)
  const meetings = await query('select * from meeting where section_id in (?)', [ids])
  const instructors = await query('select * from section_instructor where section_id in (?)', [ids])
  let next = ((await query('select max(id) as most from section'))[0]!.most as number) + 1
  let made = sections.length
  for (let copy = 0; made < SECTIONS; copy++) {
    const idOf = new Map(ids.map((id) => [id, next++]))
    const batch = sections.slice(0, SECTIONS - made).map((row) => ({
      ...row,
      id: idOf.get(row.id as number),
      parent_id: row.parent_id === null ? null : idOf.get(row.parent_id as number),
      code: `z${idOf
        .get(row.id as number)!
        .toString(36)
        .padStart(4, '0')}`,
      number: `${String(row.number)}.${copy.toString(36)}`
    }))
    await insert(connection, 'section', batch)
    const there = new Set(batch.map((row) => row.id))
    const copied = (rows: Row[]) =>
      rows
        .map((row) => ({ ...row, section_id: idOf.get(row.section_id as number) }))
        .filter((row) => there.has(row.section_id))
    await insert(
      connection,
      'meeting',
      copied(meetings).map((row) => ({ ...row, id: null }))
    )
    await insert(connection, 'section_instructor', copied(instructors))
    made += batch.length
  }
  return made
}

async function insert(connection: Connection, table: string, rows: object[]): Promise<void> {
  if (!rows.length) return
  const columns = Object.keys(rows[0]!)
  const plain = (value: unknown) =>
    value !== null && typeof value === 'object' && !(value instanceof Date) ? JSON.stringify(value) : value
  await connection.query<ResultSetHeader>('insert into ?? (??) values ?', [
    table,
    columns,
    rows.map((row) => Object.values(row).map(plain))
  ])
}

async function timed(work: () => Promise<unknown>, times = TIMES): Promise<number[]> {
  const found: number[] = []
  for (let i = 0; i < times; i++) {
    const from = performance.now()
    await work()
    found.push(performance.now() - from)
  }
  return found
}

export async function largeTerm(): Promise<string[]> {
  const folder = mkdtempSync(join(tmpdir(), 'ridgeway-bench-large-'))
  const server = await startMariadb(folder)
  try {
    const url = await server.database('large')
    await prepareDatabase(url, () => undefined, { demo: true })
    const connection = await mysql.createConnection({ uri: url, dateStrings: true })
    const made = await multiply(connection)
    await connection.end()
    const { db, close } = connect(url, { connections: 4 })
    const anew = await timed(() => offerOf(db, TERM), 5)
    await wholeOffer(db, TERM, 0)
    const kept = await timed(() => wholeOffer(db, TERM, 0))
    await close()
    const site = await startSite(ROOT, await freePort(), url, { demo: true })
    const browser = await launched()
    const page = await browser.newPage({ baseURL: site.address, viewport: { width: 1280, height: 800 } })
    await page.request.post('/api/session', { data: { name: 'imke.varga', password: DEMO_PASSWORD } })
    const cookie = (await page.context().cookies()).map(({ name, value }) => `${name}=${value}`).join('; ')
    const ask = async () =>
      (await fetch(`${site.address}/api/terms/${TERM}/offer`, { headers: { cookie } })).arrayBuffer()
    await ask()
    const answered = await timed(ask)
    await page.goto('/students/1/week/sections')
    await page.locator('.row').first().waitFor()
    const drawn = await page.evaluate(async (times) => {
      const found: number[] = []
      const field = document.querySelector<HTMLInputElement>('.question')!
      const questions = [
        'stat',
        'envi 310',
        'TR 9-12',
        'harbour',
        '',
        'soil',
        'M after 1',
        'w',
        'writing',
        ''
      ]
      for (let i = 0; i < times; i++) {
        for (const question of questions) {
          await new Promise((done) => setTimeout(done, 350))
          const from = performance.now()
          field.value = question
          field.dispatchEvent(new InputEvent('input', { bubbles: true }))
          // What is typed is worked out and put into the page before the next task; asking for the layout has it made.
          await new Promise((done) => setTimeout(done))
          document.body.getBoundingClientRect()
          found.push(performance.now() - from)
        }
      }
      return found
    }, 3)
    await browser.close()
    await site.stop()
    return [
      `offer of ${made} sections read anew: ${inOrder(anew)}; with only its seats read: ${inOrder(kept)}; as answered by the server: ${inOrder(answered)}`,
      `search of them typed, worked out and laid out in Chromium: ${inOrder(drawn)}`
    ]
  } finally {
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
