/** A backup of the database of `DATABASE_URL` or of the private one, and the way back. */
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { DATA } from '../data'
import { runningMariadb, startMariadb } from '../mariadb'
import { PlainError } from '../supervisor'
import { backUp, restore } from './archive'

const HELP = {
  backup: `npm run backup -- [FILE] [--unchecked]

  Writes the database to FILE, and beside it FILE.json with what is in it. While servers go on.
  Without FILE: ridgeway-, the instant, .sql.gz, in this folder.

  --unchecked   do not read it back into a database beside (the name with _check after it)

  The database is that of DATABASE_URL, or the private one of npm start.`,
  restore: `npm run restore -- FILE [--replace]

  Puts what npm run backup wrote into an empty database, once the file is what it was, and compares
  each table. No server may run on it meanwhile.

  --replace     throw away first what the database holds

  The database is that of DATABASE_URL, or the private one of npm start.`
}

const [what, ...args] = process.argv.slice(2)
const doing = what === 'restore' ? 'restore' : 'backup'
/** Its only option. */
const OWN = doing === 'restore' ? 'replace' : 'unchecked'
const say = (line: string) => console.log(line)

function asked() {
  const flag = { type: 'boolean', default: false } as const
  try {
    return parseArgs({ args, options: { help: flag, [OWN]: flag }, allowPositionals: true })
  } catch (error) {
    throw new PlainError(`${(error as Error).message}. Try: npm run ${doing} -- --help`)
  }
}

/** Works on the database, and puts down what had to be started for it. */
async function onDatabase(work: (url: string) => Promise<void>): Promise<void> {
  const url = process.env.DATABASE_URL
  if (url) return work(url)
  const running = doing === 'backup' ? runningMariadb(DATA, 'ridgeway') : undefined
  if (running) return work(running)
  const server = await startMariadb(DATA)
  try {
    await work(await server.database('ridgeway'))
  } finally {
    await server.stop()
  }
}

async function main(): Promise<void> {
  const { values, positionals } = asked()
  if (values.help) return say(HELP[doing])
  if (positionals.length > 1 || (doing === 'restore' && !positionals.length))
    throw new PlainError(`One file is asked for. Try: npm run ${doing} -- --help`)
  const at = new Date()
  const named = `ridgeway-${at.toISOString().slice(0, 19).replaceAll(':', '')}Z.sql.gz`
  const file = positionals[0] ?? join(process.cwd(), named)
  await onDatabase(async (url) => {
    if (doing === 'restore') {
      const { at: of } = await restore(url, file, { replace: values[OWN] === true, say })
      say(`The database is that of ${of}.`)
    } else {
      await backUp(url, file, { at, check: values[OWN] !== true, say })
      say(`Kept: ${file}`)
    }
  })
}

try {
  await main()
} catch (error) {
  console.error(error instanceof PlainError ? error.message : `It failed: ${(error as Error).message}`)
  process.exitCode = 1
}
