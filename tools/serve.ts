/** Database, demo, build and server, in this order; Ctrl+C puts all of it down, whatever has only begun too. */
import { existsSync, rmSync } from 'node:fs'
import { connect } from '#server/db/connect'
import { inviteFirst } from '#server/features/accounts/staff'
import { DEMO_PASSWORD } from '../demo/staff'
import { buildWhenNeeded } from './build'
import { DATA, ROOT } from './data'
import { freePort, startMariadb, type PrivateServer } from './mariadb'
import type { StandIn } from './signOn'
import { portIsFree, prepareDatabase, startSite, type Site } from './site'
import { PlainError } from './supervisor'

const args = process.argv.slice(2)
const port = Number(args[args.indexOf('--port') + 1])
const workers = Number(args[args.indexOf('--workers') + 1])
const dev = args.includes('--dev')
const reset = args.includes('--reset')
const demo = args.includes('--demo')
const say = (line: string) => console.log(line)

const ends = new AbortController()
const { signal } = ends
let server: PrivateServer | undefined
let site: Site | undefined
let signOn: StandIn | undefined

async function putDown(): Promise<void> {
  await site?.stop()
  await signOn?.stop()
  await server?.stop()
}

async function main(): Promise<void> {
  const started = Date.now()
  await portIsFree(port)
  let url = process.env.DATABASE_URL
  if (url && reset)
    throw new PlainError('--reset works on the private database only; empty your own one yourself.')
  if (url && demo)
    throw new PlainError('The demo goes into the private database only: start without DATABASE_URL.')
  if (!url) {
    if (reset && existsSync(DATA)) rmSync(DATA, { recursive: true })
    server = await startMariadb(DATA, { say, signal })
    url = await server.database('ridgeway')
  }
  const hasDemo = await prepareDatabase(url, say, { demo })
  if (!dev) await buildWhenNeeded(ROOT)
  const env = args.includes('--sign-on') ? await withSignOn() : {}
  site = await startSite(ROOT, port, url, { dev, workers, demo: hasDemo, env, say, signal })
  say(`
Ridgeway is at ${site.address}   (up in ${((Date.now() - started) / 1000).toFixed(1)} s; Ctrl+C ends it)`)
  if (hasDemo)
    say(`
Demo sign-ins, all with the password "${DEMO_PASSWORD}":
  imke.varga      a student whose registration opens on Monday
  orla.denholt    her program advisor
  edda.whitlock   the registrar's office`)
  else if (process.env.RIDGEWAY_PASSWORDS !== 'off') await sayFirst(url, site.address)
}

/** A sign-on of its own beside, in which everybody of the demo is known; what the server is told of it. */
async function withSignOn(): Promise<Record<string, string>> {
  const { STAND_IN_CLIENT, STAND_IN_SECRET, startSignOn } = await import('./signOn')
  const origin = `http://127.0.0.1:${port}`
  signOn = await startSignOn(await freePort(), `${origin}/sign-on/back`)
  say(`A sign-on that believes every name is at ${signOn.issuer}`)
  return {
    RIDGEWAY_ORIGIN: origin,
    RIDGEWAY_SIGN_ON: signOn.issuer,
    RIDGEWAY_SIGN_ON_CLIENT: STAND_IN_CLIENT,
    RIDGEWAY_SIGN_ON_SECRET: STAND_IN_SECRET,
    RIDGEWAY_SIGN_ON_TITLE: 'the stand-in sign-on'
  }
}

/** How the first of the registrar's office comes in, by whom all others are invited. */
async function sayFirst(url: string, address: string): Promise<void> {
  const { db, close } = connect(url, { connections: 1 })
  try {
    const key = await inviteFirst(db)
    if (key === undefined) return
    const origin = process.env.RIDGEWAY_ORIGIN?.replace(/\/$/, '') ?? address
    say(`
Nobody of the registrar's office can sign in yet. This link sets the first password, once, within seven
days; until it is used, each start tells another one:
  ${origin}/welcome/${key}`)
  } finally {
    await close()
  }
}

const going = main()
for (const name of ['SIGINT', 'SIGTERM'] as const) {
  process.on(name, () => {
    if (signal.aborted) return
    say('\nStopping ...')
    ends.abort()
    // What is starting ends by the signal; what runs is put down.
    void going
      .catch(() => undefined)
      .then(putDown)
      .then(() => process.exit(0))
  })
}

try {
  await going
} catch (error) {
  if (!signal.aborted) {
    await putDown()
    console.error(
      error instanceof PlainError ? error.message : `Ridgeway could not start: ${(error as Error).message}`
    )
    process.exit(1)
  }
}
