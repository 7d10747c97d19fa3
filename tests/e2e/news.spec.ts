import { readFileSync } from 'node:fs'
import { freePort } from '../../tools/mariadb'
import { startSite, type Site } from '../../tools/site'
import { enter, expect, OPENS, ROOT, setClock, test, type DemoSite, leave } from './site'
import type { Page } from '@playwright/test'
import { settled } from './axe'

test.use({ scenario: 'news' })

let second: Site
/** The same demo, served by two other processes that share a port. */
let elsewhere: DemoSite
let figures: string
test.beforeAll(async ({ site }) => {
  const port = await freePort()
  figures = `http://127.0.0.1:${port}/`
  const env = { RIDGEWAY_METRICS: `127.0.0.1:${port}` }
  second = await startSite(ROOT, await freePort(), site.url, { demo: true, workers: 2, env })
  elsewhere = { ...site, address: second.address }
})
test.afterAll(() => second.stop())

async function open(site: DemoSite, name: string, path: string): Promise<Page> {
  const page = await enter(site, name)
  await page.goto(path)
  await settled(page)
  return page
}

async function send(page: Page, path: string, data: object, key?: string) {
  return page.request.post(path, {
    data,
    ...(key ? { headers: { 'idempotency-key': `"${key}"` } } : {})
  })
}

test('what an advisor does is on the screen of the student, across servers @long', async ({ site }) => {
  const imke = await open(site, 'imke.varga', '/students/1/register')
  const orla = await enter(elsewhere, 'orla.denholt')
  await expect(imke.getByText('not given yet')).toBeVisible()
  expect((await send(orla, '/api/students/1/sign-off', { term: 'AU27' })).ok()).toBe(true)
  await expect(imke.getByText('Orla Denholt,')).toBeVisible()
  await orla.request.delete('/api/students/1/sign-off?term=AU27')
  await expect(imke.getByText('not given yet')).toBeVisible()
  for (const page of [imke, orla]) await leave(page)
})

test('what a student asks is on the desk of the advisor', async ({ site }) => {
  const orla = await open(elsewhere, 'orla.denholt', '/desk')
  const mira = await enter(site, 'mira.sandoval')
  const waiting = orla.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: /^Desk/ })
  const before = await waiting.textContent()
  const waiver = { kind: 'waiver', course: 'ENDA 410', reason: 'took its like elsewhere' }
  const asked = await send(mira, '/api/students/12/requests', waiver)
  expect(asked.ok()).toBe(true)
  await expect(waiting).not.toHaveText(before!)
  for (const page of [mira, orla]) await leave(page)
})

test('what is changed while a page is read for the first time is on it all the same', async ({ site }) => {
  const imke = await enter(site, 'imke.varga')
  const orla = await enter(elsewhere, 'orla.denholt')
  const change = async () =>
    expect((await send(orla, '/api/students/1/sign-off', { term: 'AU27' })).ok()).toBe(true)
  await answeredAfter(imke, '**/api/students/1', change)
  await imke.goto('/students/1/register')
  await expect(imke.getByText('Orla Denholt,')).toBeVisible()
  await orla.request.delete('/api/students/1/sign-off?term=AU27')
  await expect(imke.getByText('not given yet')).toBeVisible()

  const requests = orla.getByRole('link', { name: /^Requests/ })
  const substitution = { kind: 'substitution', program: 'ENVD', need: 'speaking', course: 'HERI 320' }
  const asked = { ...substitution, reason: 'Its talk is the longer one.' }
  await answeredAfter(orla, '**/api/requests', async () =>
    expect((await send(imke, '/api/students/1/requests', asked)).ok()).toBe(true)
  )
  await orla.goto('/requests')
  await expect(orla.getByRole('article', { name: 'Imke Varga, HERI 320' })).toBeVisible()
  await expect(requests).toContainText('to answer')
  for (const page of [imke, orla]) await leave(page)
})

/** Holds the first answer to a page back until something else has been done and told. */
async function answeredAfter(page: Page, address: string, work: () => Promise<void>): Promise<void> {
  await page.route(
    address,
    async (route) => {
      const answer = await route.fetch()
      await work()
      // Longer than news is on its way.
      await page.waitForTimeout(2000)
      await route.fulfill({ response: answer })
    },
    { times: 1 }
  )
}

test('a server that is told to end lets go of its streams, and browsers come back to the next @long', async ({
  site
}) => {
  const port = await freePort()
  const serve = () => startSite(ROOT, port, site.url, { demo: true })
  const first = await serve()
  const imke = await open({ ...site, address: first.address }, 'imke.varga', '/students/1/register')
  await expect(imke.getByText('not given yet')).toBeVisible()
  const ended = first.stop().then(() => 'ended')
  // It would wait half a minute for an answer that stays open.
  const tooLong = new Promise((resolve) => setTimeout(resolve, 10_000, 'still there').unref())
  expect(await Promise.race([ended, tooLong])).toBe('ended')
  const next = await serve()
  const orla = await enter(elsewhere, 'orla.denholt')
  await send(orla, '/api/students/1/sign-off', { term: 'AU27' })
  await expect(imke.getByText('Orla Denholt,')).toBeVisible({ timeout: 20_000 })
  await orla.request.delete('/api/students/1/sign-off?term=AU27')
  for (const page of [imke, orla]) await leave(page)
  await next.stop()
})

test('a clock that is set elsewhere is told', async ({ site }) => {
  const imke = await open(site, 'imke.varga', '/students/1/register')
  const edda = await enter(elsewhere, 'edda.whitlock')
  await setClock(edda, OPENS)
  await expect(imke.getByText('open now')).toBeVisible()
  await leave(edda)
  await leave(imke)
})

test('seats that are taken elsewhere are told', async ({ site }) => {
  const imke = await open(site, 'imke.varga', '/students/1/courses/WRIT-215')
  const [row] = await site.query<{ id: number; code: string; taken: number; capacity: number }>(
    "select s.id, s.code, s.taken, s.capacity from section s join course c on c.id = s.course_id join term t on t.id = s.term_id where c.code = 'WRIT 215' and t.code = 'AU27' order by s.number limit 1"
  )
  const { capacity, taken } = row!
  const line = imke.getByRole('row').filter({ hasText: row!.code })
  await expect(line).toContainText(`${capacity - taken} of ${capacity} left`)
  await site.query('update section set taken = taken + 1 where id = ?', [row!.id])
  await site.query(
    'insert into news (at, kind, about) values (utc_timestamp(3), \'seats\', \'{"term":"AU27"}\')'
  )
  await expect(line).toContainText(`${capacity - taken - 1} of ${capacity} left`)
  await site.query('update section set taken = ? where id = ?', [taken, row!.id])
  await leave(imke)
})

test('a change that is sent twice is made once, whichever server is asked', async ({ site }) => {
  const here = await enter(site, 'imke.varga')
  const there = await enter(elsewhere, 'imke.varga')
  const version = async () =>
    ((await (await here.request.get('/api/students/1')).json()) as { route: { version: number } }).route
      .version
  const seen = await version()
  const body = {
    route: null,
    version: seen,
    change: { kind: 'add', planned: { course: 'MUSI 101', term: 'SP29', credits: 3 } }
  }
  const answers = await Promise.all(
    [here, there, here].map(async (page) => send(page, '/api/students/1/route', body, 'sent-three-times'))
  )
  expect(answers.map((one) => one.status())).toEqual([200, 200, 200])
  const [first, ...others] = await Promise.all(answers.map((one) => one.json()))
  for (const other of others) expect(other).toEqual(first)
  expect(await version()).toBe(seen + 1)
  const other = await send(
    here,
    '/api/students/1/route/step',
    { version: seen, step: 'undo' },
    'sent-three-times'
  )
  expect(other.status()).toBe(422)
  expect((await send(here, '/api/students/1/review', {}, 'no')).status()).toBe(400)
  for (const page of [here, there]) await leave(page)
})

test('what is missed while a browser is away is told when it comes back', async ({ site }) => {
  const imke = await open(site, 'imke.varga', '/students/1/register')
  const orla = await enter(elsewhere, 'orla.denholt')
  await expect(imke.getByText('not given yet')).toBeVisible()
  await imke.context().setOffline(true)
  await send(orla, '/api/students/1/sign-off', { term: 'AU27' })
  await expect(imke.getByText('You are offline.')).toBeVisible()
  await imke.context().setOffline(false)
  await expect(imke.getByText('Orla Denholt,')).toBeVisible({ timeout: 8000 })
  await orla.request.delete('/api/students/1/sign-off?term=AU27')
  for (const page of [imke, orla]) await leave(page)
})

test('two tabs of one browser share one stream, and the second goes on when the first is closed @long', async ({
  site
}) => {
  const first = await open(site, 'imke.varga', '/students/1/register')
  const streams: string[] = []
  const context = first.context()
  context.on('request', (request) => request.url().includes('/api/news') && streams.push(request.url()))
  const other = await context.newPage()
  await other.goto('/students/1/register')
  await settled(other)
  const orla = await enter(elsewhere, 'orla.denholt')
  await send(orla, '/api/students/1/sign-off', { term: 'AU27' })
  for (const page of [first, other]) await expect(page.getByText('Orla Denholt,')).toBeVisible()
  expect(streams).toEqual([])
  await first.close()
  await expect.poll(() => streams.length).toBe(1)
  await orla.request.delete('/api/students/1/sign-off?term=AU27')
  await expect(other.getByText('not given yet')).toBeVisible()
  for (const page of [orla, first]) await leave(page)
})

test('every kind of change waits without a server, stays over a reload, and reaches its own student @long', async ({
  site
}) => {
  const page = await open(site, 'imke.varga', '/students/1/courses/MUSI-102')
  await page.route('**/api/students/1/courses/**', (route) => route.abort())
  await page.getByRole('button', { name: /^Star/ }).click()
  await expect(page.getByText(/The server cannot be reached\. \d changes? waits? here/)).toBeVisible()
  await page.reload()
  await expect(page.getByText(/The server cannot be reached\. \d changes? waits? here/)).toBeVisible({
    timeout: 10_000
  })
  await expect(page.getByRole('button', { name: /starred|Unstar|no longer/i }).first()).toBeVisible()
  await page.unroute('**/api/students/1/courses/**')
  await expect(page.getByText('The connection is back; everything is saved.')).toBeVisible({
    timeout: 20_000
  })
  const { marks } = (await (await page.request.get('/api/students/1')).json()) as {
    marks: { course: string; starred: boolean }[]
  }
  expect(marks.find((one) => one.course === 'MUSI 102')).toMatchObject({ starred: true })
  await leave(page)
})

test('what a tab has waiting is its own to send, and is taken over when it is closed @long', async ({
  site
}) => {
  const first = await open(site, 'imke.varga', '/students/1/courses/STAT-110')
  await first.route('**/api/students/1/courses/**', (route) => route.abort())
  await first.getByRole('button', { name: /^Star/ }).click()
  const waits = first.getByText(/The server cannot be reached\. \d changes? waits? here/)
  await expect(waits).toBeVisible()
  // That the course was looked at waits too, unless it was sent before the connection was cut.
  const all = Number(/\d/.exec((await waits.textContent())!)![0])
  const other = await first.context().newPage()
  const changes: string[] = []
  other.on('request', (request) => request.method() !== 'GET' && changes.push(request.url()))
  await other.goto('/students/1/register')
  await settled(other)
  expect(changes).toEqual([])
  await first.close()
  await expect.poll(() => changes.length).toBe(all)
  for (const url of changes) expect(url).toContain('/courses/STAT-110')
  await leave(other)
})

test('of two servers behind a port one is killed: what is asked is answered, and both are counted together', async ({
  site
}) => {
  const imke = await enter(elsewhere, 'imke.varga')
  const pid = second.pid()!
  const servers = () => readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ')
  const before = servers()
  expect(before).toHaveLength(2)
  process.kill(Number(before[0]), 'SIGKILL')
  const alone = { headers: { connection: 'close' } }
  for (let i = 0; i < 20; i++) expect((await fetch(`${elsewhere.address}/healthz`, alone)).ok).toBe(true)
  await expect.poll(() => servers().filter((one) => !before.includes(one)).length).toBe(1)
  expect((await imke.request.get('/api/students/1')).ok()).toBe(true)
  const counted = async () =>
    Number(
      /_count\{method="GET",route="\/healthz",status="200"\} (\d+)/.exec(
        await (await fetch(figures)).text()
      )?.[1] ?? 0
    )
  await expect.poll(counted).toBeGreaterThanOrEqual(20)
  await leave(imke)
  expect((await fetch(`${site.address}/healthz`)).headers.get('x-request-id')).toMatch(/^[0-9a-f-]{36}$/)
})
