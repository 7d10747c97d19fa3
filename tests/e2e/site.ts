/** A served demo of its own for each test file, and short ways to act in it. */
import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import {
  test as base,
  expect,
  type Browser,
  type BrowserContext,
  type Page,
  type Request
} from '@playwright/test'
import mysql from 'mysql2/promise'
import { DEMO_PASSWORD } from '../../demo/staff'
import { freePort } from '../../tools/mariadb'
import { copyDatabase } from '../../tools/copyDatabase'
import { startSite } from '../../tools/site'

export const ROOT = dirname(dirname(dirname(fileURLToPath(import.meta.url))))

export interface DemoSite {
  address: string
  pid: () => number | undefined
  /** Of the database. */
  url: string
  query: <Row>(sql: string, values?: unknown[]) => Promise<Row[]>
}

export const test = base.extend<object, { scenario: string; site: DemoSite }>({
  /** Files that name different scenarios share no server and no database. */
  scenario: ['shared', { option: true, scope: 'worker' }],
  site: [
    async ({ scenario }, use, worker) => {
      const server = process.env.RIDGEWAY_TEST_SERVER
      if (!server) throw new Error('the database of the run is not there')
      const name = `e2e_${scenario}_${worker.workerIndex}`
      const connection = await mysql.createConnection({ uri: server })
      await copyDatabase(server, 'seed', name)
      await connection.query('use ??', [name])
      const url = `${server}/${name}`
      const site = await startSite(ROOT, await freePort(), url, { demo: true })
      await use({
        address: site.address,
        pid: site.pid,
        url,
        query: async <Row>(sql: string, values: unknown[] = []) =>
          (await connection.query(sql, values))[0] as Row[]
      })
      await site.stop()
      await connection.end()
    },
    { scope: 'worker' }
  ]
})
export { expect }

type Cookies = Awaited<ReturnType<BrowserContext['cookies']>>
/** Of who has signed in to a site before: a password is slow to check, by intent. */
const signedIn = new Map<string, Cookies>()

/** A page of its own browser context, signed in as before where that session still stands. */
export async function enter(
  browser: Browser,
  site: DemoSite,
  name: string,
  options: Parameters<Browser['newContext']>[0] = {}
): Promise<Page> {
  const page = await visit(browser, site, options)
  const before = signedIn.get(`${site.address} ${name}`)
  if (before) await page.context().addCookies(before)
  const stands = before && (await (await page.request.get('/api/session')).json()) !== null
  if (!stands) await signIn(page, name)
  signedIn.set(`${site.address} ${name}`, await page.context().cookies())
  return page
}

/** The same, with a session of its own. */
export async function enterAnew(browser: Browser, site: DemoSite, name: string): Promise<Page> {
  const page = await visit(browser, site)
  await signIn(page, name)
  return page
}

async function signIn(page: Page, name: string): Promise<void> {
  const answer = await page.request.post('/api/session', { data: { name, password: DEMO_PASSWORD } })
  expect(answer.ok(), await answer.text()).toBe(true)
}

async function visit(
  browser: Browser,
  site: DemoSite,
  options: Parameters<Browser['newContext']>[0] = {}
): Promise<Page> {
  const context = await browser.newContext({
    baseURL: site.address,
    viewport: { width: 1280, height: 800 },
    reducedMotion: 'reduce',
    ...options
  })
  const page = await context.newPage()
  watchChanges(page)
  return page
}

/**
 * Every change that was made on the page has been answered. What is changed is shown at once and sent after: who reads
 * the database, or goes, waits for this first.
 */
export async function sent(page: Page): Promise<void> {
  await expect.poll(() => underWay.get(page)?.size ?? 0, { intervals: [0, 50, 100] }).toBe(0)
}

/** Closes the browser of a page, once its changes have been answered. */
export async function leave(page: Page): Promise<void> {
  await sent(page)
  await page.context().close()
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
