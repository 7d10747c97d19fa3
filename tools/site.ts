/** A served application: its database migrated and filled, its production server listening. */
import { spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import { loadDemo } from '../demo/load'
import { DEMO_PASSWORD } from '../demo/staff'
import { migrateDatabase } from '../server/db/migrate'
import { PlainError } from './mariadb'

/** @throws PlainError when the port is taken. */
export function portIsFree(port: number): Promise<void> {
  return new Promise((resolve, reject) => {
    const probe = createServer()
    probe.once('error', () =>
      reject(new PlainError(`Port ${port} is in use. Choose another one: npm start -- --port ${port + 1}`))
    )
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve()))
  })
}

/** The server's own words under the statement that failed, or what they mean when the disk is full. */
function plainCause(error: unknown): string {
  let inner = error as Error
  while (inner.cause instanceof Error) inner = inner.cause
  const full = /no space|no more room|disk full|table .* is full|errno: 28|error 28\b/i.test(inner.message)
  return full ? 'the disk is full; free about 200 MB and start again' : inner.message.replace(/\.$/, '')
}

/** Migrates the database and loads the demo into it when it is empty. */
export async function prepareDatabase(url: string, say: (line: string) => void): Promise<void> {
  const started = Date.now()
  try {
    await migrateDatabase(url)
  } catch (error) {
    throw new PlainError(`The database could not be brought up to date: ${plainCause(error)}.`)
  }
  say(`Database ready, ${((Date.now() - started) / 1000).toFixed(1)} s`)
  const connection = await mysql.createConnection({ uri: url })
  const [rows] = await connection.query('select count(*) as n from institution')
  await connection.end()
  if ((rows as { n: number }[])[0]!.n > 0) return
  const loading = Date.now()
  const { students, sections, courses } = await loadDemo(url).catch((error: unknown) => {
    throw new PlainError(`The demo could not be loaded: ${plainCause(error)}.`)
  })
  say(
    `Demo loaded: ${students} students, ${courses} courses, ${sections} sections, ${((Date.now() - loading) / 1000).toFixed(1)} s`
  )
}

/** The key that seals session cookies, made once and kept beside the data. */
export function sessionKey(folder: string): string {
  const file = join(folder, 'session-key')
  if (!existsSync(file)) {
    mkdirSync(folder, { recursive: true })
    writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 })
  }
  return readFileSync(file, 'utf8')
}

export interface Site {
  address: string
  /** Resolves with the exit code when the server ends by itself. */
  ended: Promise<number>
  stop: () => Promise<void>
}

const READY_MS = 60_000

export async function startSite(
  root: string,
  port: number,
  databaseUrl: string,
  key: string,
  { dev = false } = {}
): Promise<Site> {
  const address = `http://127.0.0.1:${port}`
  const command = dev
    ? [
        join(root, 'node_modules', 'nuxt', 'bin', 'nuxt.mjs'),
        'dev',
        '--no-fork',
        '--port',
        String(port),
        '--host',
        '127.0.0.1'
      ]
    : [join(root, '.output', 'server', 'index.mjs')]
  const child = spawn(process.execPath, command, {
    cwd: root,
    stdio: dev ? 'inherit' : ['ignore', 'ignore', 'inherit'],
    detached: true,
    env: {
      ...process.env,
      NODE_ENV: dev ? 'development' : 'production',
      HOST: '127.0.0.1',
      NITRO_HOST: '127.0.0.1',
      PORT: String(port),
      NITRO_PORT: String(port),
      DATABASE_URL: databaseUrl,
      NUXT_SESSION_PASSWORD: key,
      RIDGEWAY_DEMO: '1',
      NUXT_PUBLIC_DEMO: 'true',
      NUXT_PUBLIC_DEMO_PASSWORD: DEMO_PASSWORD
    }
  })
  const ended = new Promise<number>((resolve) => child.once('exit', (code) => resolve(code ?? 1)))
  const stop = async () => {
    child.kill('SIGTERM')
    await ended
  }
  const until = Date.now() + READY_MS
  while (Date.now() < until) {
    if (child.exitCode !== null)
      throw new PlainError('The server ended while starting; its last words stand above.')
    const answer = await fetch(`${address}/api/clock`).catch(() => undefined)
    if (answer?.ok) return { address, ended, stop }
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  await stop()
  throw new PlainError(`The server did not answer within ${READY_MS / 1000} seconds.`)
}
