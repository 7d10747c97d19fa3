/**
 * `npm run bench:import`: a set of students with what they took, brought, taken over and taken back through a served site,
 * against bare inserts of as many rows on the same database; and the most memory that the server took.
 *
 * 60,000 courses taken; or as many as are named: `npm run bench:import -- 6000`.
 */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { writeRoster } from '#shared/oneRoster/write'
import type { RosterFile } from '#shared/oneRoster/read'
import type { Row, Table } from '#shared/oneRoster/tables'
import { courses as demoCourses } from '../demo/catalog'
import { PAST_TERMS } from '../demo/college'
import { DEMO_PASSWORD } from '../demo/staff'
import { freePort, startMariadb } from './mariadb'
import { prepareDatabase, startSite } from './site'

/** Courses that a student took, of five terms. */
const EACH = 10
const GRADES = ['A', 'B+', 'B', 'C', 'D', 'F']
const HEAP_MB = 512

/** Students nobody has heard of, each with so many courses taken and graded. */
function setOf(enrolments: number): RosterFile[] {
  const students = Array.from({ length: Math.ceil(enrolments / EACH) }, (_, n) => n)
  const taught = demoCourses.slice(0, 60).map((one) => one.code.replace(' ', '-'))
  const classes = PAST_TERMS.flatMap((term) => taught.map((course) => ({ term, course })))
  const org = { orgSourcedId: 'institution' }
  const takes = students.flatMap((n) =>
    Array.from({ length: EACH }, (_, k) => ({
      n,
      course: taught[(n * 7 + k * 5) % taught.length]!,
      term: PAST_TERMS[k % PAST_TERMS.length]!
    }))
  )
  const tables: [Table, Row[]][] = [
    [
      'classes',
      classes.map(({ term, course }) => ({
        ...{ sourcedId: `c-${term}-${course}`, title: `${course} ${term}`, classType: 'scheduled' },
        ...{
          courseSourcedId: `course-${course}`,
          schoolSourcedId: 'institution',
          termSourcedIds: `term-${term}`
        }
      }))
    ],
    [
      'users',
      students.map((n) => ({
        ...{ sourcedId: `u-${n}`, enabledUser: 'true', username: `brought.${n}`, identifier: `B${n}` },
        ...{ givenName: 'Brought', familyName: `Student ${n}`, email: `brought.${n}@harrowmere.example` },
        'metadata.programs': 'ENVD 2025-26'
      }))
    ],
    [
      'roles',
      students.map((n) => ({
        ...{ sourcedId: `r-${n}`, userSourcedId: `u-${n}`, roleType: 'primary', role: 'student', ...org }
      }))
    ],
    [
      'enrollments',
      takes.slice(0, enrolments).map(({ n, course, term }) => ({
        ...{ sourcedId: `e-${n}-${term}-${course}`, classSourcedId: `c-${term}-${course}` },
        ...{ schoolSourcedId: 'institution', userSourcedId: `u-${n}`, role: 'student' }
      }))
    ],
    [
      'lineItems',
      classes.map(({ term, course }) => ({
        ...{ sourcedId: `l-${term}-${course}`, title: 'Final grade', classSourcedId: `c-${term}-${course}` }
      }))
    ],
    [
      'results',
      takes.slice(0, enrolments).map(({ n, course, term }, i) => ({
        ...{ sourcedId: `g-${n}-${term}-${course}`, lineItemSourcedId: `l-${term}-${course}` },
        ...{ studentSourcedId: `u-${n}`, scoreStatus: 'fully graded', scoreDate: '2026-12-20' },
        textScore: GRADES[i % GRADES.length]!
      }))
    ]
  ]
  return writeRoster(new Map(tables), 'Elsewhere')
}

async function timed<T>(work: () => Promise<T>): Promise<[seconds: number, T]> {
  const started = performance.now()
  const done = await work()
  return [(performance.now() - started) / 1000, done]
}

/** Bare inserts of the rows that such a set makes, 500 to a statement, in one transaction. */
async function bare(url: string, enrolments: number): Promise<number> {
  const connection = await mysql.createConnection({ uri: url })
  await connection.query('create table bare_taken like record_course')
  const [[like]] = await connection.query<RowDataPacket[]>(
    'select course_id, term_id from record_course where term_id is not null limit 1'
  )
  const [seconds] = await timed(async () => {
    await connection.beginTransaction()
    for (let i = 0; i < enrolments; i += 500)
      await connection.query(
        'insert into bare_taken (student_id, course_id, term_id, credits, grade, origin) values ?',
        [Array.from({ length: 500 }, (_, n) => [i + n, like!.course_id, like!.term_id, 3, 'B', 'here'])]
      )
    await connection.commit()
  })
  await connection.query('drop table bare_taken')
  await connection.end()
  return seconds
}

/** The most memory that a process has held, in megabytes. */
const peakOf = (pid: number) =>
  Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024

async function main(): Promise<void> {
  const enrolments = Number(process.argv[2] ?? 60_000)
  const root = fileURLToPath(new URL('..', import.meta.url))
  const folder = mkdtempSync(join(tmpdir(), 'ridgeway-import-'))
  const server = await startMariadb(folder)
  try {
    const url = await server.database('ridgeway_import')
    await prepareDatabase(url, () => undefined, { demo: true })
    const site = await startSite(root, await freePort(), url, {
      demo: true,
      env: { NODE_OPTIONS: `--max-old-space-size=${HEAP_MB}` }
    })
    try {
      let cookie = ''
      const ask = async <T>(path: string, body?: unknown): Promise<T> => {
        const answer = await fetch(`${site.address}/api/${path}`, {
          method: body === undefined ? 'GET' : 'POST',
          headers: { cookie, origin: site.address, 'content-type': 'application/json' },
          ...(body === undefined ? {} : { body: JSON.stringify(body) })
        })
        cookie ||= answer.headers
          .getSetCookie()
          .map((one) => one.split(';')[0]!)
          .join('; ')
        if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`)
        return (await answer.json()) as T
      }
      await ask('session', { name: 'edda.whitlock', password: DEMO_PASSWORD })
      const before = peakOf(site.pid()!)
      const files = setOf(enrolments)
      const size = files.reduce((sum, one) => sum + one.text.length, 0) / 1e6
      console.log(
        `${enrolments} courses taken, ${size.toFixed(1)} MB of files, ${HEAP_MB} MB of objects at most`
      )
      const reference = await bare(url, enrolments)
      const [looking, { id }] = await timed(() => ask<{ id: number }>('imports', { name: 'bench', files }))
      const { faults, all } = await ask<{ faults: unknown[]; all: number }>(`imports/${id}`)
      if (faults.length) throw new Error(`it has faults: ${JSON.stringify(faults.slice(0, 3))}`)
      const rows: [string, number][] = [
        ['bare inserts of the courses taken', reference],
        [`looked at: ${all} lines`, looking]
      ]
      // Somebody else asks meanwhile, over and over.
      let slowest = 0
      let isOver = false
      const beside = (async () => {
        while (!isOver) slowest = Math.max(slowest, (await timed(() => ask('session')))[0])
      })()
      rows.push(['taken over', (await timed(() => ask(`imports/${id}/apply`, {})))[0]])
      rows.push(['taken back', (await timed(() => ask(`imports/${id}/undo`, {})))[0]])
      isOver = true
      await beside
      for (const [what, seconds] of rows)
        console.log(
          `${what.padEnd(40)} ${seconds.toFixed(1).padStart(7)} s ${(seconds / reference).toFixed(1).padStart(7)} of bare`
        )
      console.log(`the slowest answer to somebody else meanwhile: ${(slowest * 1000).toFixed(0)} ms`)
      console.log(
        `the most memory of the server: ${before.toFixed(0)} MB before, ${peakOf(site.pid()!).toFixed(0)} MB after`
      )
    } finally {
      await site.stop()
    }
  } finally {
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

await main()
