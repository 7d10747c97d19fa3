/** What a backup asks of a database, and of MariaDB's own programs. */
import { spawn } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Readable } from 'node:stream'
import mysql, { type Connection, type RowDataPacket } from 'mysql2/promise'
import { z } from 'zod'
import { PlainError, rootOf } from '../supervisor'

/** Rows and checksum, by table. */
export const counted = z.record(z.string(), z.object({ rows: z.number(), checksum: z.string() }))
export type Counted = z.infer<typeof counted>

/** Runs one of MariaDB's programs on a database; its password stands in a file that only we can read, not in the list of processes. */
export async function client(
  command: string,
  url: string,
  options: readonly string[],
  talk: (input: NodeJS.WritableStream & { end: () => void }, output: Readable) => Promise<void>
): Promise<void> {
  const { host, port, user, password, database } = partsOf(url)
  const quoted = (text: string) => `"${text.replace(/["\\]/g, '\\$&')}"`
  const login = join(tmpdir(), `ridgeway-${randomUUID()}.cnf`)
  const said = [
    `host=${quoted(host)}`,
    `port=${port}`,
    'protocol=tcp',
    `user=${quoted(user)}`,
    `password=${quoted(password)}`
  ]
  writeFileSync(login, `[client]\n${said.join('\n')}\n`, { mode: 0o600 })
  try {
    const child = spawn(command, [`--defaults-extra-file=${login}`, ...options, database])
    let words = ''
    child.stderr.on('data', (chunk: Buffer) => (words = (words + String(chunk)).slice(-2000)))
    const ended = new Promise<number | null>((resolve, reject) => {
      child.once('error', reject)
      child.once('close', resolve)
    })
    const [spoken, code] = await Promise.allSettled([talk(child.stdin, child.stdout), ended])
    if (code.status === 'rejected') throw new PlainError(`${command} failed: ${rootOf(code.reason).message}.`)
    if (code.value !== 0)
      throw new PlainError(`${command} failed: ${words.trim() || 'it ended without a word'}.`)
    if (spoken.status === 'rejected')
      throw new PlainError(`${command} failed: ${rootOf(spoken.reason).message}.`)
  } finally {
    rmSync(login, { force: true })
  }
}

function partsOf(url: string) {
  const { hostname, port, username, password, pathname } = new URL(url)
  return {
    host: hostname,
    port: Number(port || 3306),
    user: decodeURIComponent(username),
    password: decodeURIComponent(password),
    database: decodeURIComponent(pathname.slice(1))
  }
}

async function connected<T>(url: string, work: (connection: Connection) => Promise<T>): Promise<T> {
  const connection = await mysql.createConnection({ uri: url })
  try {
    return await work(connection)
  } finally {
    await connection.end()
  }
}

export function ask(url: string, sql: string, values: unknown[] = []): Promise<RowDataPacket[]> {
  return connected(url, async (connection) => (await connection.query<RowDataPacket[]>(sql, values))[0])
}

export async function tablesOf(url: string): Promise<string[]> {
  const rows = await ask(
    url,
    "select table_name as name from information_schema.tables where table_schema = database() and table_type = 'BASE TABLE' order by table_name"
  )
  return rows.map((row) => String(row.name))
}

export async function count(url: string): Promise<Counted> {
  const tables = await tablesOf(url)
  return connected(url, async (connection) => {
    const one = async (sql: string, table: string) =>
      (await connection.query<RowDataPacket[]>(sql, [table]))[0][0]!
    const found: Counted = {}
    for (const table of tables) {
      const { n } = await one('select count(*) as n from ??', table)
      const { Checksum } = await one('checksum table ??', table)
      found[table] = { rows: Number(n), checksum: String(Checksum) }
    }
    return found
  })
}

export function drop(url: string, names: readonly string[]): Promise<void> {
  return connected(url, async (connection) => {
    await connection.query('set foreign_key_checks = 0')
    for (const name of names) await connection.query('drop table ??', [name])
  })
}

export const nameIn = (url: string) => partsOf(url).database
