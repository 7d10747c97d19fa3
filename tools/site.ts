/** A served application: its database migrated and filled, its production server listening. */
import type { ChildProcess } from 'node:child_process'
import { createServer } from 'node:net'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import { loadDemo } from '../demo/load'
import { DEMO_PASSWORD } from '../demo/staff'
import { migrateDatabase } from '#server/db/migrate'
import { keepRunning, PlainError, rootOf, type Kept } from './supervisor'
import { canReach, ordinaryUser } from './systemUser'

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
  const inner = rootOf(error)
  const full = /no space|no more room|disk full|table .* is full|errno: 28|error 28\b/i.test(inner.message)
  return full ? 'the disk is full; free about 200 MB and start again' : inner.message.replace(/\.$/, '')
}

/**
 * Migrates the database; with `demo`, which is for databases made here alone, loads the demo into it when it is empty.
 * Answers whether the demo is in it.
 */
export async function prepareDatabase(
  url: string,
  say: (line: string) => void,
  { demo }: { demo: boolean }
): Promise<boolean> {
  const started = Date.now()
  try {
    await migrateDatabase(url)
  } catch (error) {
    throw new PlainError(`The database could not be brought up to date: ${plainCause(error)}.`)
  }
  say(`Database ready, ${((Date.now() - started) / 1000).toFixed(1)} s`)
  const connection = await mysql.createConnection({ uri: url })
  const [rows] = await connection.query(
    `select (select count(*) from institution) + (select count(*) from account) as there,
      (select count(*) from account where situation is not null) as cards`
  )
  await connection.end()
  const { there, cards } = (rows as { there: number; cards: number }[])[0]!
  if (there > 0 || !demo) return demo && cards > 0
  const loading = Date.now()
  const { students, sections, courses } = await loadDemo(url).catch((error: unknown) => {
    throw new PlainError(`The demo could not be loaded: ${plainCause(error)}.`)
  })
  say(
    `Demo loaded: ${students} students, ${courses} courses, ${sections} sections, ${((Date.now() - loading) / 1000).toFixed(1)} s`
  )
  return true
}

export interface Site {
  address: string
  pid: Kept['pid']
  stop: Kept['stop']
}

interface Serving {
  /** With hot reload, from the sources. */
  dev?: boolean
  /** Servers behind the port. */
  workers?: number
  /** The demo is in the database. */
  demo?: boolean
  /** What its surroundings say beside: `server/settings.ts`. */
  env?: Readonly<Record<string, string>>
  say?: (line: string) => void
  signal?: AbortSignal
}

const READY_MS = 60_000

export async function startSite(
  root: string,
  port: number,
  databaseUrl: string,
  { dev = false, workers = 1, demo = false, env: more = {}, say, signal }: Serving = {}
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
    : [
        ...(workers > 1 ? [join(root, 'tools', 'workers.mjs'), String(workers)] : []),
        join(root, '.output', 'server', 'index.mjs')
      ]
  const { RIDGEWAY_DEMO: _, ...env } = process.env
  const user = dev ? undefined : ordinaryUser()
  const as = user && canReach(user, command[0]!) ? { uid: user.uid, gid: user.gid } : {}
  const kept = await keepRunning({
    what: 'The server',
    command: [process.execPath, ...command],
    options: {
      ...as,
      cwd: root,
      // By the channel the server hears when its starter is gone, and ends.
      stdio: dev ? 'inherit' : ['ignore', 'ignore', 'inherit', 'ipc'],
      env: {
        ...env,
        ...more,
        NODE_ENV: dev ? 'development' : 'production',
        HOST: '127.0.0.1',
        NITRO_HOST: '127.0.0.1',
        PORT: String(port),
        NITRO_PORT: String(port),
        DATABASE_URL: databaseUrl,
        ...(demo && {
          RIDGEWAY_DEMO: '1',
          NUXT_PUBLIC_DEMO: 'true',
          NUXT_PUBLIC_DEMO_PASSWORD: DEMO_PASSWORD
        })
      }
    },
    ready: (child) => answering(child, address),
    say,
    signal
  })
  return { address, ...kept }
}

async function answering(child: ChildProcess, address: string): Promise<void> {
  const until = Date.now() + READY_MS
  while (Date.now() < until) {
    if (child.exitCode !== null || child.signalCode !== null)
      throw new PlainError('The server ended while starting; its last words stand above.')
    const answer = await fetch(`${address}/readyz`).catch(() => undefined)
    if (answer?.ok) return
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  throw new PlainError(`The server did not answer within ${READY_MS / 1000} seconds.`)
}
