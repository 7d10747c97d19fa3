// oxlint-disable max-lines -- one scenario, told from its beginning to its table
/**
 * `npm run bench:storm`: an opening, run by run. Students with five lines each register at once, against bare prepared
 * statements that change as many rows; what a page of somebody else waits meanwhile; one server and two.
 *
 * 2,000 students; with `--long` 10,000, or as many as are named: `npm run bench:storm -- 400`.
 */
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import mysql, { type Connection, type PoolConnection, type RowDataPacket } from 'mysql2/promise'
import { courseCode, studentId, termCode, type CourseCode } from '#core/ids'
import { connect } from '#server/db/connect'
import { whoIs } from '#server/features/accounts/accounts'
import { readCatalogContext } from '#server/features/catalog/context'
import { run } from '#server/features/registration/run'
import { readSheet } from '#server/features/registration/sheet'
import { readStudentRecords } from '#server/features/record/studentRecords'
import { startMariadb } from './mariadb'
import { prepareDatabase } from './site'
import { copyDatabase } from './copyDatabase'

const TERM = termCode('AU27')
const OPENS = '2027-04-12 11:00:00'
const COURSES = 40
/** Sections of a course, each at hours of its own. */
const SECTIONS = 4
const LINES = 5
const FIRST = 100_000

type Row = RowDataPacket & Record<string, unknown>

/** The nth course of a student: never two in the same hours. */
const courseOf = (student: number, line: number) => (student * 13 + line * 9) % COURSES
const sectionOf = (student: number, line: number) =>
  FIRST + courseOf(student, line) * SECTIONS + (Math.floor(student / COURSES) % SECTIONS)
const nameOf = (course: number): CourseCode => courseCode(`ENDA ${900 + course}`)

/** Courses without conditions, whose seats are somewhat fewer than are asked for, and students who have picked of them. */
async function build(connection: Connection, students: number): Promise<void> {
  const query = async (sql: string, values: unknown[] = []) => (await connection.query<Row[]>(sql, values))[0]
  await query("update term set sign_off_policy = 'none', agreement = null")
  await query('delete from hold')
  await query('update opening set opens_at = ?, standings = ?, programs = ?, blocks = ?', [
    OPENS,
    '[]',
    '[]',
    '[]'
  ])
  await query("update campus_clock set mode = 'standing', campus_at = ?, set_at = ?", [OPENS, OPENS])
  const [term] = await query('select id, starts_on, ends_on from term where code = ?', [TERM])
  const [session] = await query("select id from session where term_id = ? and code = 'FULL'", [term!.id])
  const [like] = await query("select * from course where code = 'LANG 140'")
  const [section] = await query('select * from section where course_id = ? and term_id = ? limit 1', [
    like!.id,
    term!.id
  ])
  const capacity = Math.ceil((0.95 * students * LINES) / (COURSES * SECTIONS))
  const put = async (table: string, rows: Record<string, unknown>[]) => {
    const plain = (value: unknown) =>
      value !== null && typeof value === 'object' && !(value instanceof Date) ? JSON.stringify(value) : value
    for (let i = 0; i < rows.length; i += 1000) {
      const part = rows.slice(i, i + 1000)
      await connection.query('insert into ?? (??) values ?', [
        table,
        Object.keys(part[0]!),
        part.map((row) => Object.values(row).map(plain))
      ])
    }
  }
  const courses = Array.from({ length: COURSES }, (_, i) => ({ ...like!, id: FIRST + i, code: nameOf(i) }))
  await put('course', courses)
  const sections = courses.flatMap((course, c) =>
    Array.from({ length: SECTIONS }, (_, s) => ({
      ...section!,
      id: FIRST + c * SECTIONS + s,
      code: `Z${String(c * SECTIONS + s).padStart(4, '0')}`,
      number: `0${s + 1}`,
      course_id: course.id,
      session_id: session!.id,
      capacity,
      taken: 0,
      offered: 0,
      waiting: 0
    }))
  )
  await put('section', sections)
  // Eight groups of courses, each at hours of its own, so that the five lines of a student never meet.
  await put(
    'meeting',
    sections.map(({ id }, i) => {
      const group = Math.floor(i / SECTIONS) % 8
      return {
        section_id: id,
        days: group % 2 ? 'TR' : 'MW',
        starts_min: 480 + Math.floor(group / 2) * 90,
        ends_min: 555 + Math.floor(group / 2) * 90,
        from_on: term!.starts_on,
        to_on: term!.ends_on
      }
    })
  )
  const [account] = await query('select a.* from account a join student s on s.account_id = a.id limit 1')
  const [student] = await query("select * from student where level = 'undergraduate' limit 1")
  const ids = Array.from({ length: students }, (_, i) => FIRST + i)
  await put(
    'account',
    ids.map((id) => ({ ...account!, id, sign_in: `storm.${id}`, mail: `storm.${id}@harrowmere.example` }))
  )
  await put(
    'student',
    ids.map((id) => ({ ...student!, id, account_id: id, number: `S${id}` }))
  )
  const [program] = await query('select * from student_program limit 1')
  await put(
    'student_program',
    ids.map((id) => ({ ...program!, ...('id' in program! ? { id: null } : {}), student_id: id }))
  )
  const [route] = await query('select * from route where chosen limit 1')
  await put(
    'route',
    ids.map((id) => ({ ...route!, id, student_id: id }))
  )
  await put(
    'draft_week',
    ids.map((id) => ({ id, student_id: id, term_id: term!.id, name: 'First', going_with: true }))
  )
  await put(
    'picked_section',
    ids.flatMap((id, i) =>
      Array.from({ length: LINES }, (_, line) => ({
        draft_week_id: id,
        section_id: sectionOf(i, line)
      }))
    )
  )
}

export interface Storm {
  lines: number
  seats: number
  ms: number
  /** Milliseconds of each run. */
  runs: number[]
}

/** Works through a list, so many at a time; @returns how long each took */
async function atOnce<T>(
  list: readonly T[],
  most: number,
  work: (one: T) => Promise<void>
): Promise<number[]> {
  const queue = [...list]
  const took: number[] = []
  const worker = async () => {
    for (let one; (one = queue.shift()) !== undefined;) {
      const from = performance.now()
      await work(one)
      took.push(performance.now() - from)
    }
  }
  await Promise.all(Array.from({ length: most }, worker))
  return took
}

/** Has students register what they picked, as one server does. */
async function storm(url: string, from: number, to: number, most: number): Promise<Storm> {
  const { db, close } = connect(url, { connections: 24 })
  const catalogContext = await readCatalogContext(db)
  const ids = Array.from({ length: to - from }, (_, i) => from + i)
  let seats = 0
  const began = performance.now()
  const runs = await atOnce(ids, most, async (i) => {
    const courses = Array.from({ length: LINES }, (_, line) => nameOf(courseOf(i, line)))
    const who = await whoIs(db, FIRST + i)
    const receipt = await run(
      db,
      who,
      studentId(FIRST + i),
      { term: TERM, courses, key: `storm ${i}` },
      catalogContext
    )
    seats += receipt.lines.filter((line) => line.outcome === 'registered').length
  })
  const ms = performance.now() - began
  await close()
  return { lines: ids.length * LINES, seats, ms, runs }
}

/** The rows that a line adds, by table, as they were counted in a storm. */
type RowsALine = Record<'event_log' | 'news' | 'ledger_entry', number>

/** The same seats by prepared statements alone: nothing is checked, and as many rows are written. */
async function bare(url: string, students: number, most: number, rows: RowsALine): Promise<Storm> {
  const pool = mysql.createPool({ uri: url, connectionLimit: 24, timezone: 'Z' })
  const ids = Array.from({ length: students }, (_, i) => i)
  let seats = 0
  const began = performance.now()
  const runs = await atOnce(ids, most, async (i) => {
    const on = await pool.getConnection()
    try {
      const taken = await bareRun(on, i, rows)
      seats += taken
    } finally {
      on.release()
    }
  })
  const ms = performance.now() - began
  await pool.end()
  return { lines: students * LINES, seats, ms, runs }
}

async function bareRun(on: PoolConnection, i: number, rows: RowsALine): Promise<number> {
  const id = FIRST + i
  let seats = 0
  await on.beginTransaction()
  const [made] = await on.execute<mysql.ResultSetHeader>(
    'insert into receipt (student_id, term_id, at, by_id, run_key, begun_at) values (?, (select id from term where code = ?), ?, ?, ?, ?)',
    [id, TERM, OPENS, id, `bare ${i}`, OPENS]
  )
  for (let line = 0; line < LINES; line++)
    await on.execute(
      "insert into receipt_line (receipt_id, ordinal, course_id, sections, action, outcome, refusals) values (?, ?, ?, '[]', 'register', 'waiting', '[]')",
      [made.insertId, line, FIRST + courseOf(i, line)]
    )
  await on.commit()
  for (let line = 0; line < LINES; line++) {
    const section = sectionOf(i, line)
    await on.beginTransaction()
    await on.execute('select id from student where id = ? for update', [id])
    const [[row]] = await on.execute<Row[]>('select capacity, taken from section where id = ? for update', [
      section
    ])
    if ((row!.taken as number) < (row!.capacity as number)) {
      seats++
      await on.execute('update section set taken = taken + 1 where id = ?', [section])
      await on.execute(
        'insert into registration (student_id, section_id, registered_at, by_id, placed_by_office) values (?, ?, ?, ?, false)',
        [id, section, OPENS, id]
      )
      const about = JSON.stringify({ term: TERM, section })
      for (let n = 0; n < rows.event_log; n++)
        await on.execute(
          "insert into event_log (at, account_id, student_id, action, after) values (?, ?, ?, 'bare', ?)",
          [OPENS, id, id, about]
        )
      for (let n = 0; n < rows.news; n++)
        await on.execute('insert into news (kind, student_id, at, about) values (?, ?, now(3), ?)', [
          'record',
          id,
          '{}'
        ])
      for (let n = 0; n < rows.ledger_entry; n++)
        await on.execute(
          "insert into ledger_entry (student_id, term_id, at, kind, item, assessed, amount, debit, credit) select ?, id, ?, 'charge', 'tuition', 100, 100, 'student', 'tuition' from term where code = ?",
          [id, OPENS, TERM]
        )
    }
    await on.execute('update receipt_line set outcome = ? where receipt_id = ? and ordinal = ?', [
      'registered',
      made.insertId,
      line
    ])
    await on.commit()
  }
  await on.execute('update receipt set ended_at = ? where id = ?', [OPENS, made.insertId])
  return seats
}

/** What somebody else waits for their run sheet, asked for again and again until the work is done. */
async function readsDuring(url: string, work: Promise<unknown>): Promise<number[]> {
  const { db, close } = connect(url, { connections: 2 })
  const catalogContext = await readCatalogContext(db)
  const took: number[] = []
  let isDone = false
  const over = work.finally(() => (isDone = true))
  do {
    const from = performance.now()
    const [record] = await readStudentRecords(db, [1], 'self')
    await readSheet(db, record!, catalogContext, TERM, Date.parse(`${OPENS.replace(' ', 'T')}Z`))
    took.push(performance.now() - from)
    await new Promise((next) => setTimeout(next, 100))
  } while (!isDone)
  await over
  await close()
  return took
}

const at = (list: readonly number[], share: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(share * list.length))] ?? 0
const ms = (value: number) => `${Math.round(value)} ms`
const perSecond = ({ lines, ms }: Storm) => (lines / ms) * 1000
const told = (name: string, one: Storm, beside = '') =>
  `${name}: ${perSecond(one).toFixed(0)} lines/s, runs median ${ms(at(one.runs, 0.5))}, 99 % ${ms(at(one.runs, 0.99))}, ${one.seats} seats of ${one.lines} lines${beside}`

/** A part of the storm in a process of its own. */
function apart(url: string, from: number, to: number, most: number): Promise<Storm> {
  return new Promise((resolve, reject) => {
    const self = fileURLToPath(import.meta.url)
    const child = spawn(
      process.execPath,
      ['--import', 'tsx', self, 'part', url, `${from}`, `${to}`, `${most}`],
      {
        stdio: ['ignore', 'pipe', 'inherit']
      }
    )
    let output = ''
    child.stdout.on('data', (chunk) => (output += chunk))
    child.on('close', (code) =>
      code === 0 ? resolve(JSON.parse(output) as Storm) : reject(new Error(`a part ended with ${code}`))
    )
  })
}

async function rowsOf(connection: Connection): Promise<RowsALine & { registration: number }> {
  const [[row]] = await connection.query<Row[]>(
    `select (select count(*) from registration) as registration, (select count(*) from event_log) as event_log,
       (select count(*) from news) as news, (select count(*) from ledger_entry) as ledger_entry`
  )
  return row as unknown as RowsALine & { registration: number }
}

async function main(): Promise<void> {
  const asked = process.argv.find((one) => /^\d+$/.test(one))
  const students = asked ? Number(asked) : process.argv.includes('--long') ? 10_000 : 2_000
  const folder = mkdtempSync(join(tmpdir(), 'ridgeway-storm-'))
  const server = await startMariadb(folder)
  try {
    const url = await server.database('storm')
    await prepareDatabase(url, () => undefined, { demo: true })
    const base = url.slice(0, url.lastIndexOf('/'))
    const connection = await mysql.createConnection({ uri: url, timezone: 'Z', dateStrings: true })
    await build(connection, students)
    const fresh = async (name: string) => {
      await copyDatabase(base, 'storm', name)
      return `${base}/${name}`
    }
    const quiet = await readsDuring(url, new Promise((done) => setTimeout(done, 3000)))
    let counted: RowsALine | undefined
    for (const most of [50, 500]) {
      const mine = await fresh(`run${most}`)
      const before = await rowsOf(connection)
      const work = storm(mine, 0, students, most)
      const reads = await readsDuring(mine, work)
      const one = await work
      const looked = await mysql.createConnection({ uri: mine })
      const after = await rowsOf(looked)
      const [[wrong]] = await looked.query<Row[]>(
        'select count(*) as n from section s where s.taken + s.offered > s.capacity or s.taken <> (select count(*) from registration r where r.section_id = s.id)'
      )
      await looked.end()
      const seats = after.registration - before.registration
      const each = (key: keyof RowsALine) => Math.round((after[key] - before[key]) / seats)
      counted = { event_log: each('event_log'), news: each('news'), ledger_entry: each('ledger_entry') }
      const plain = await bare(await fresh(`bare${most}`), students, most, counted)
      console.log(
        told(`${students} students, ${most} at once`, one, `, ${String(wrong!.n)} sections wrong`),
        `\n  somebody else's run sheet: median ${ms(at(reads, 0.5))} beside it, ${ms(at(quiet, 0.5))} in quiet (${(at(reads, 0.5) / at(quiet, 0.5)).toFixed(1)}x)`
      )
      console.log(
        told(
          `  bare prepared statements, ${most} at once`,
          plain,
          `: the run is at ${(perSecond(one) / perSecond(plain)).toFixed(2)} of it`
        )
      )
    }
    const two = await fresh('two')
    const half = students / 2
    const began = performance.now()
    const [a, b] = await Promise.all([apart(two, 0, half, 25), apart(two, half, students, 25)])
    const both = { lines: a.lines + b.lines, seats: a.seats + b.seats, runs: [...a.runs, ...b.runs] }
    console.log(told('two server processes, 25 at once each', { ...both, ms: Math.max(a.ms, b.ms) }))
    console.log(`  with their start: ${ms(performance.now() - began)}`)
    await connection.end()
  } finally {
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

const [part, url, from, to, most] = process.argv.slice(2)
if (part === 'part') console.log(JSON.stringify(await storm(url!, Number(from), Number(to), Number(most))))
else await main()
