/** Database, demo, build and server, in this order; Ctrl+C puts all of it down. */
import { existsSync, rmSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { DEMO_PASSWORD } from '../demo/staff'
import { buildWhenNeeded } from './build'
import { PlainError, startMariadb, type PrivateServer } from './mariadb'
import { portIsFree, prepareDatabase, sessionKey, startSite, type Site } from './site'

const ROOT = dirname(dirname(fileURLToPath(import.meta.url)))
const DATA = process.env.RIDGEWAY_DATA ?? join(ROOT, '.data')
const args = process.argv.slice(2)
const port = Number(args[args.indexOf('--port') + 1])
const dev = args.includes('--dev')
const reset = args.includes('--reset')
const say = (line: string) => console.log(line)

let server: PrivateServer | undefined
let site: Site | undefined
let stopping = false

async function putDown(): Promise<void> {
  await site?.stop()
  await server?.stop()
}

async function main(): Promise<void> {
  const started = Date.now()
  await portIsFree(port)
  let url = process.env.DATABASE_URL
  if (url && reset)
    throw new PlainError('--reset works on the private database only; empty your own one yourself.')
  if (!url) {
    if (reset && existsSync(DATA)) rmSync(DATA, { recursive: true })
    server = await startMariadb(DATA)
    url = await server.database('ridgeway')
  }
  await prepareDatabase(url, say)
  if (!dev) await buildWhenNeeded(ROOT)
  site = await startSite(ROOT, port, url, sessionKey(DATA), { dev })
  say(`
Ridgeway is at ${site.address}   (up in ${((Date.now() - started) / 1000).toFixed(1)} s; Ctrl+C ends it)

Demo sign-ins, all with the password "${DEMO_PASSWORD}":
  imke.varga      a student whose registration opens on Monday
  orla.denholt    her program advisor
  edda.whitlock   the registrar's office`)
  const code = await site.ended
  if (stopping) return
  await server?.stop()
  throw new PlainError(`The server ended by itself (code ${code}).`)
}

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    if (stopping) return
    stopping = true
    say('\nStopping ...')
    void putDown().then(() => process.exit(0))
  })
}

try {
  await main()
} catch (error) {
  if (stopping) process.exit(0)
  await putDown()
  console.error(
    error instanceof PlainError ? error.message : `Ridgeway could not start: ${(error as Error).message}`
  )
  process.exit(1)
}
