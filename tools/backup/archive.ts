/**
 * A database as a file and back: a consistent dump by MariaDB's own program, packed, with an account of what is in it
 * beside it. A backup counts once it has been read back: it is restored beside the database, and what is in it agrees.
 */
import { createHash } from 'node:crypto'
import {
  createReadStream,
  createWriteStream,
  existsSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync
} from 'node:fs'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGunzip, createGzip } from 'node:zlib'
import { z } from 'zod'
import { migrateDatabase } from '#server/db/migrate'
import { disagreementsIn } from '../disagreements'
import { PlainError, rootOf } from '../supervisor'
import { ask, client, count, counted, drop, nameIn, tablesOf, type Counted } from './database'

const account = z.object({
  format: z.literal('ridgeway backup 1'),
  at: z.string(),
  server: z.string(),
  sha256: z.string(),
  bytes: z.number(),
  /** Where the binary log stood, to go on from; null where none is written. */
  log: z.object({ file: z.string(), position: z.number() }).nullable(),
  /** What stood in each table when it was read back; null when it was not. */
  tables: counted.nullable()
})
export type Account = z.infer<typeof account>
type Say = (line: string) => void

const DUMP = [
  '--single-transaction',
  '--quick',
  '--skip-lock-tables',
  '--triggers',
  '--routines',
  '--hex-blob',
  '--no-tablespaces',
  '--skip-dump-date',
  '--default-character-set=utf8mb4'
]

export const accountOf = (file: string) => `${file}.json`

/**
 * Writes a backup, and reads it back into a database of its own beside, which is gone afterwards.
 *
 * @throws PlainError saying what there is then: nothing, or a file that was not read back
 */
export async function backUp(
  url: string,
  file: string,
  { at, check, say }: { at: Date; check: boolean; say: Say }
): Promise<Account> {
  for (const path of [file, accountOf(file)])
    if (existsSync(path)) throw new PlainError(`${path} is there already; nothing was written.`)
  const part = `${file}.part`
  try {
    const { server, hasLog } = await about(url)
    const log = await dump(url, part, hasLog)
    say(`Written: ${(statSync(part).size / 1e6).toFixed(1)} MB`)
    const readTables = check ? await readBack(url, part, say) : null
    const bytes = statSync(part).size
    const whole: Account = {
      format: 'ridgeway backup 1',
      ...{ at: at.toISOString(), server, sha256: await digest(part), bytes, log, tables: readTables }
    }
    renameSync(part, file)
    writeFileSync(accountOf(file), `${JSON.stringify(whole, null, 1)}\n`, { mode: 0o600 })
    return whole
  } finally {
    rmSync(part, { force: true })
  }
}

/**
 * Puts a backup into an empty database, compares each table with what it was, and brings it up to date.
 *
 * @throws PlainError before anything is changed where the file is not what it was, or the database holds something
 */
export async function restore(
  url: string,
  file: string,
  { replace, say }: { replace: boolean; say: Say }
): Promise<Account> {
  const known = readAccount(file)
  if ((await digest(file)) !== known.sha256)
    throw new PlainError(`${file} is not what it was when it was written; nothing was changed.`)
  const there = await tablesOf(url)
  if (there.length && !replace)
    throw new PlainError(
      `The database holds ${there.length} tables; nothing was changed. With --replace they are thrown away first.`
    )
  await drop(url, there)
  await load(url, file).catch((error: Error) => {
    throw new PlainError(`${error.message} The database is not whole now: restore again with --replace.`)
  })
  if (known.tables) compare(known.tables, await count(url))
  say(
    known.tables
      ? 'Loaded, and every table is what it was'
      : 'Loaded; it had not been read back when it was written'
  )
  await migrateDatabase(url)
  await sayWhetherItAgrees(url, say)
  return known
}

export function readAccount(file: string): Account {
  const beside = accountOf(file)
  for (const path of [file, beside]) if (!existsSync(path)) throw new PlainError(`There is no ${path}.`)
  const read = account.safeParse(jsonIn(beside))
  if (!read.success)
    throw new PlainError(
      `${beside} is not the account of a backup: ${read.error.issues[0]!.path.join('.') || 'it'} is wrong.`
    )
  return read.data
}

function jsonIn(path: string): unknown {
  try {
    return JSON.parse(readFileSync(path, 'utf8'))
  } catch {
    return undefined
  }
}

async function digest(file: string): Promise<string> {
  const hash = createHash('sha256')
  await pipeline(createReadStream(file), hash)
  return hash.digest('hex')
}

/** Answers where the binary log stood. */
async function dump(url: string, file: string, hasLog: boolean): Promise<Account['log']> {
  let log: Account['log'] = null
  const kept = (line: string) => {
    const place = /^-- CHANGE MASTER TO MASTER_LOG_FILE='([^']+)', MASTER_LOG_POS=(\d+)/.exec(line)
    if (place) log = { file: place[1]!, position: Number(place[2]) }
    // Whoever restores it is the one who made the triggers then.
    return line.startsWith('/*!50003 CREATE*/') ? line.replace(/\/\*!50017 DEFINER=\S+?\*\/ /, '') : line
  }
  const options = hasLog ? [...DUMP, '--master-data=2'] : DUMP
  await client('mariadb-dump', url, options, async (input, output) => {
    input.end()
    await pipeline(output, lines(kept), createGzip(), createWriteStream(file, { mode: 0o600 }))
  })
  return log
}

async function load(url: string, file: string): Promise<void> {
  await client('mariadb', url, ['--default-character-set=utf8mb4'], async (input, output) => {
    output.resume()
    await pipeline(createReadStream(file), createGunzip(), input)
  })
}

/** Text by lines, each as `kept` has it; a line may be cut anywhere on its way. */
function lines(kept: (line: string) => string): Transform {
  let rest = Buffer.alloc(0)
  return new Transform({
    transform(chunk: Buffer, _, done) {
      const end = chunk.lastIndexOf(10)
      if (end < 0) rest = Buffer.concat([rest, chunk])
      else {
        const whole = Buffer.concat([rest, chunk.subarray(0, end + 1)]).toString('utf8')
        rest = Buffer.from(chunk.subarray(end + 1))
        this.push(whole.split('\n').map(kept).join('\n'))
      }
      done()
    },
    flush(done) {
      this.push(rest)
      done()
    }
  })
}

function compare(was: Counted, is: Counted): void {
  const names = [...new Set([...Object.keys(was), ...Object.keys(is)])]
  const wrong = names.filter(
    (name) => was[name]?.checksum !== is[name]?.checksum || was[name]?.rows !== is[name]?.rows
  )
  if (wrong.length)
    throw new PlainError(`Not what they were: ${wrong.join(', ')}. Do not start a server on this database.`)
}

/** Into a database beside, which is empty before and gone afterwards. */
async function readBack(url: string, file: string, say: Say): Promise<Counted> {
  const name = `${nameIn(url)}_check`
  const beside = new URL(url)
  beside.pathname = `/${encodeURIComponent(name)}`
  await ask(url, 'create database ?? character set utf8mb4 collate utf8mb4_uca1400_ai_ci', [name]).catch(
    (error: Error) => {
      throw new PlainError(
        `It is read back into a database "${name}", which could not be made: ${error.message}. ` +
          `Grant all rights on ${name}.*, or leave that out with --unchecked; nothing was kept.`
      )
    }
  )
  try {
    await load(beside.href, file)
    const found = await count(beside.href)
    say(`Read back: ${Object.keys(found).length} tables`)
    // One of an earlier release is brought up to date there first. It is kept whatever comes of it.
    await migrateDatabase(beside.href)
      .then(() => sayWhetherItAgrees(beside.href, say))
      .catch((error: unknown) =>
        say(`Whether what is in it agrees could not be asked: ${rootOf(error).message}`)
      )
    return found
  } finally {
    await ask(url, 'drop database ??', [name])
  }
}

/** What a database that is not whole says is kept all the same: it may be all that there is. */
async function sayWhetherItAgrees(url: string, say: Say): Promise<void> {
  const found = await disagreementsIn(url)
  for (const sentence of found) say(sentence)
  say(found.length ? `What is in it does not agree: ${found.length} of these` : 'What is in it agrees')
}

async function about(url: string): Promise<{ server: string; hasLog: boolean }> {
  const [row] = await ask(url, 'select version() as version, @@log_bin as log')
  return { server: String(row!.version), hasLog: Number(row!.log) === 1 }
}
