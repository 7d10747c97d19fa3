/** A served demo of its own for each test file, and short ways to act in it. */
import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import {
  test as base,
  expect,
  type BrowserContext,
  type Page,
  type Request,
  type Response
} from '@playwright/test'
import mysql from 'mysql2/promise'
import { DEMO_PASSWORD } from '../../demo/staff'
import { copyDatabase } from '../../tools/copyDatabase'
import { startSite } from '../../tools/site'
import { LONG } from '../long'
import { faultOf, patternOf } from './described'
import { Browsers, PHONE, type Screen } from './browsers'

export const ROOT = dirname(dirname(dirname(fileURLToPath(import.meta.url))))

export interface DemoSite {
  address: string
  pid: () => number | undefined
  /** Of the database. */
  url: string
  query: <Row>(sql: string, values?: unknown[]) => Promise<Row[]>
  browsers: Browsers
}

export const test = base.extend<
  { tidy: undefined },
  { scenario: string; heapMost: number | undefined; site: DemoSite }
>({
  /** Whoever is still there when a test ends leaves, so that nothing of it comes upon the next one. */
  tidy: [
    async ({ site: _ }, use) => {
      await use(undefined)
      for (const page of [...present]) await leave(page)
      expect((await Promise.all(checking.splice(0))).filter(Boolean)).toEqual([])
      read.clear()
    },
    { auto: true }
  ],
  /** Files that name different scenarios share no server and no database. */
  scenario: ['shared', { option: true, scope: 'worker' }],
  /** Megabytes of objects that the server may hold at once; it ends when it needs more. */
  heapMost: [undefined, { option: true, scope: 'worker' }],
  site: [
    async ({ scenario, heapMost, launchOptions }, use, worker) => {
      const { server, ports, profiles } = runOf(process.env.RIDGEWAY_TEST_RUN)
      const name = `e2e_${scenario}_${worker.workerIndex}`
      const connection = await mysql.createConnection({ uri: server })
      await copyDatabase(server, 'seed', name)
      await connection.query('use ??', [name])
      const url = `${server}/${name}`
      // At the same address for every file, so that the browsers know its code already.
      const site = await startSite(ROOT, ports[worker.parallelIndex]!, url, {
        demo: true,
        ...(heapMost && { env: { NODE_OPTIONS: `--max-old-space-size=${heapMost}` } })
      })
      const browsers = new Browsers(profiles, launchOptions)
      await use({
        address: site.address,
        pid: site.pid,
        url,
        browsers,
        query: async <Row>(sql: string, values: unknown[] = []) =>
          (await connection.query(sql, values))[0] as Row[]
      })
      await browsers.close()
      await site.stop()
      await connection.end()
    },
    { scope: 'worker' }
  ]
})
export { expect, PHONE }

/**
 * Files that mostly read share a server where what takes long, and changes more, is left out. Each writes for students
 * of its own.
 */
export const scenarioOfReading = (name: string): string => (LONG ? name : 'reading')

/** What all files of a run share. */
export interface TestRun {
  /** Address of the database server, without a database. */
  server: string
  /** One for each file that runs at the same time. */
  ports: number[]
  /** Folder of the browsers' profiles. */
  profiles: string
}
function runOf(written: string | undefined): TestRun {
  if (!written) throw new Error('the database of the run is not there')
  return JSON.parse(written) as TestRun
}

type Cookies = Awaited<ReturnType<BrowserContext['cookies']>>
/** Of who has signed in to a site before: a password is slow to check, by intent. */
const signedIn = new Map<string, Cookies>()

/** A page in a browser of its own, signed in as before where that session still stands. */
export async function enter(site: DemoSite, name: string, screen?: Screen): Promise<Page> {
  const page = await visit(site, screen)
  const before = signedIn.get(`${site.address} ${name}`)
  if (before) await page.context().addCookies(before)
  const stands = before && (await (await page.request.get('/api/session')).json()) !== null
  if (!stands) await signIn(page, name)
  signedIn.set(`${site.address} ${name}`, await page.context().cookies())
  return page
}

/** The same, with a session of its own. */
export async function enterAnew(site: DemoSite, name: string): Promise<Page> {
  const page = await visit(site)
  await signIn(page, name)
  return page
}

async function signIn(page: Page, name: string): Promise<void> {
  const answer = await page.request.post('/api/session', { data: { name, password: DEMO_PASSWORD } })
  expect(answer.ok(), await answer.text()).toBe(true)
}

/** A page in a browser that has never been here. */
export async function enterFirst(site: DemoSite, name: string): Promise<Page> {
  const page = await visit(site, undefined, true)
  await signIn(page, name)
  return page
}

/** A page in a browser of its own, of somebody who is not signed in. */
export async function visit(site: DemoSite, screen?: Screen, isNew = false): Promise<Page> {
  const page = await site.browsers.page(site.address, { screen, isNew })
  lenders.set(page.context(), site.browsers)
  watchChanges(page)
  page.on('response', (answer) => checking.push(faultIn(answer)))
  present.add(page)
  return page
}

/** Pages that nobody has left yet. */
const present = new Set<Page>()

/** Of the answers that a page got, what is not as it is described. */
const checking: Promise<string | undefined>[] = []
/** Answers of one kind that are read of each test; a browser is slow to give away what it has got. */
const EACH = 4
const read = new Map<string, number>()
/** Versions of what the server says to keep. */
const versions = new Set<string>()
async function faultIn(answer: Response): Promise<string | undefined> {
  const path = new URL(answer.url()).pathname
  const pattern = patternOf(path)
  if (!pattern || [204, 304].includes(answer.status())) return undefined
  if (!(answer.headers()['content-type'] ?? '').includes('application/json')) return undefined
  const { etag } = answer.headers()
  if (etag && versions.has(etag)) return undefined
  const kind = `${answer.request().method()} ${pattern} ${answer.status()}`
  const before = read.get(kind) ?? 0
  if (before >= EACH) return undefined
  read.set(kind, before + 1)
  if (etag) versions.add(etag)
  // Of a page that went on meanwhile nothing is kept.
  const text = await answer.text().catch(() => undefined)
  return text && faultOf(answer.request().method(), path, answer.status(), text)
}

const lenders = new WeakMap<BrowserContext, Browsers>()

/** Goes to another view as the application does; a page that stands nowhere yet is loaded there. */
export async function go(page: Page, path: string): Promise<void> {
  if (!page.url().startsWith('http')) {
    await page.goto(path)
    return
  }
  await page.evaluate(async (to) => {
    const { useNuxtApp } = globalThis as unknown as {
      useNuxtApp: () => { $router: { push: (path: string) => Promise<unknown> } }
    }
    await useNuxtApp().$router.push(to)
  }, path)
}

/**
 * Every change that was made on the page has been answered. What is changed is shown at once and sent after: who reads
 * the database, or goes, waits for this first.
 */
export async function sent(page: Page): Promise<void> {
  await expect.poll(() => underWay.get(page)?.size ?? 0, { intervals: [0, 50, 100] }).toBe(0)
}

/** Closes a page and what else is open in its browser, once its changes have been answered. */
export async function leave(page: Page): Promise<void> {
  present.delete(page)
  await sent(page)
  await lenders.get(page.context())!.takeBack(page.context())
}

const underWay = new WeakMap<Page, Set<Request>>()
function watchChanges(page: Page): void {
  const sending = new Set<Request>()
  underWay.set(page, sending)
  page.on('request', (request) => request.method() !== 'GET' && sending.add(request))
  for (const ended of ['requestfinished', 'requestfailed'] as const)
    // The next one in the queue begins right after.
    page.on(ended as 'requestfinished', (request) => setTimeout(() => sending.delete(request), 50))
}

export const OPENS = '2027-04-12T11:00:00.000Z'

/** Sets the campus clock, as the demo bar does. */
export async function setClock(page: Page, at: string): Promise<void> {
  const answer = await page.request.post('/api/clock', { data: { mode: 'standing', at } })
  expect(answer.ok()).toBe(true)
}

/** Chooses from a list that opens. */
export async function choose(page: Page, name: string, option: string | RegExp): Promise<void> {
  const list = page.getByRole('combobox', { name, ...(name.length < 5 ? { exact: true } : {}) }).last()
  await list.press('ArrowDown')
  await page.getByRole('option', { name: option, exact: typeof option === 'string' }).click()
  await expect(page.getByRole('listbox')).toHaveCount(0)
}
