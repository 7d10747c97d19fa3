/** A private MariaDB server on loopback: own data folder, own socket, a free port. */
import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync, readFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mysql from 'mysql2/promise'

/** What went wrong, in one sentence for the person at the terminal. */
export class PlainError extends Error {}

const INSTALL_HINT = 'apt-get install -y mariadb-server-core mariadb-client-core'
const STARTUP_MS = 60_000
/** Changes when an older data folder can no longer be used as it is. */
const LAYOUT = '1'
const PID = 'mariadb.pid'

export interface PrivateServer {
  /** Address of a database on it, which is made when missing. */
  database: (name: string) => Promise<string>
  stop: () => Promise<void>
}

function find(command: string): string {
  const places = ['/usr/sbin', '/usr/bin', '/usr/local/bin', '/usr/local/sbin'].map((dir) =>
    join(dir, command)
  )
  const found = places.find((path) => existsSync(path))
  if (!found)
    throw new PlainError(`MariaDB is not installed (${command} is missing). Install it with: ${INSTALL_HINT}`)
  return found
}

export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer()
    probe.once('error', reject)
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number }
      probe.close(() => resolve(port))
    })
  })
}

/** Starts a server on a data folder, which is made when it is not there. */
export async function startMariadb(folder: string): Promise<PrivateServer> {
  const asRoot = process.getuid?.() === 0 ? ['--user=root'] : []
  const data = join(folder, 'mariadb')
  const marker = join(folder, 'layout')
  const log = join(folder, 'mariadb.log')
  if (existsSync(data) && (!existsSync(marker) || readFileSync(marker, 'utf8').trim() !== LAYOUT)) {
    throw new PlainError(
      `The data folder ${data} was made by another version. Move it away, or start with --reset to make a new one.`
    )
  }
  const running = runningOn(folder)
  if (running)
    throw new PlainError(
      `The data folder ${folder} is in use by process ${running}. Stop that one first, with Ctrl+C or: kill ${running}`
    )
  if (!existsSync(data)) install(folder, data, marker, asRoot)

  // A socket path is limited to about a hundred characters; a temporary folder is short.
  const run = mkdtempSync(join(tmpdir(), 'ridgeway-'))
  const socket = join(run, 'db.sock')
  const port = await freePort()
  const server = spawn(
    find('mariadbd'),
    [
      '--no-defaults',
      `--datadir=${data}`,
      `--socket=${socket}`,
      `--pid-file=${join(run, 'db.pid')}`,
      '--bind-address=127.0.0.1',
      `--port=${port}`,
      `--log-error=${log}`,
      '--skip-name-resolve',
      '--character-set-server=utf8mb4',
      '--collation-server=utf8mb4_uca1400_ai_ci',
      '--default-time-zone=+00:00',
      '--max-connections=200',
      ...asRoot
    ],
    { stdio: 'ignore', detached: true }
  )
  const ended = new Promise<void>((resolve) => server.once('exit', () => resolve()))
  writeFileSync(join(folder, PID), String(server.pid))
  await accepting(server, port, log)
  return {
    database: async (name) => {
      const connection = await mysql.createConnection({ host: '127.0.0.1', port, user: 'root' })
      await connection.query(
        'create database if not exists ?? character set utf8mb4 collate utf8mb4_uca1400_ai_ci',
        [name]
      )
      await connection.end()
      return `mysql://root@127.0.0.1:${port}/${name}`
    },
    stop: async () => {
      server.kill('SIGTERM')
      await ended
      rmSync(run, { recursive: true, force: true })
      rmSync(join(folder, PID), { force: true })
    }
  }
}

/** The server that still runs on a folder, if any. */
function runningOn(folder: string): number | undefined {
  const file = join(folder, PID)
  if (!existsSync(file)) return undefined
  const pid = Number(readFileSync(file, 'utf8'))
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('mariadbd') ? pid : undefined
  } catch {
    return undefined
  }
}

function install(folder: string, data: string, marker: string, asRoot: string[]): void {
  try {
    mkdirSync(folder, { recursive: true })
  } catch (error) {
    throw new PlainError(`The data folder ${folder} cannot be made: ${(error as Error).message}`)
  }
  const made = spawnSync(
    find('mariadb-install-db'),
    [
      '--no-defaults',
      `--datadir=${data}`,
      '--auth-root-authentication-method=normal',
      '--skip-test-db',
      '--skip-name-resolve',
      ...asRoot
    ],
    { encoding: 'utf8' }
  )
  if (made.status !== 0) {
    rmSync(data, { recursive: true, force: true })
    const why = /no space|(errcode: |os errno |error )28\b/i.test(made.stderr + made.stdout)
      ? 'the disk is full; free about 200 MB and start again'
      : lastLine(made.stderr)
    throw new PlainError(`The database folder ${data} could not be made: ${why}.`)
  }
  writeFileSync(marker, `${LAYOUT}\n`)
}

async function accepting(server: ChildProcess, port: number, log: string): Promise<void> {
  const until = Date.now() + STARTUP_MS
  while (Date.now() < until) {
    if (server.exitCode !== null) {
      const why = existsSync(log) ? lastLine(readFileSync(log, 'utf8'), /\[ERROR\]/) : 'it ended at once'
      throw new PlainError(`The database did not start: ${why}. Its log is ${log}.`)
    }
    try {
      const connection = await mysql.createConnection({
        host: '127.0.0.1',
        port,
        user: 'root',
        connectTimeout: 1000
      })
      await connection.end()
      return
    } catch {
      await new Promise((resolve) => setTimeout(resolve, 50))
    }
  }
  server.kill('SIGTERM')
  throw new PlainError(`The database did not answer within ${STARTUP_MS / 1000} seconds. Its log is ${log}.`)
}

function lastLine(text: string, having = /\S/): string {
  const lines = text.split('\n').filter((line) => having.test(line))
  return (lines.find((line) => /\[ERROR\]/.test(line)) ?? lines.at(-1) ?? 'no reason given')
    .replace(/^.*\[ERROR\]\s*/, '')
    .trim()
}
