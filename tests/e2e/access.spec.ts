import type { Page } from '@playwright/test'
import { Secret, TOTP } from 'otpauth'
import { ACCESS } from '#server/http/access'
import { clean, settled } from './axe'
import { DEMO_PASSWORD } from '../../demo/staff'
import { freePort } from '../../tools/mariadb'
import { endpointFiles, hasFile } from '../../tools/openapi/endpoints'
import { startSite } from '../../tools/site'
import { enterAnew, expect, leave, ROOT, test, visit, type DemoSite } from './site'

test.use({ scenario: 'access' })

test('every endpoint has its line in the table of access, and names that one', () => {
  const found = endpointFiles()
  for (const { line, text } of found)
    expect(/(?:ndpoint|publicPage)\(\s*'([^']+)'/.exec(text)?.[1], line).toBe(line)
  const lines = Object.keys(ACCESS).filter(hasFile)
  expect(found.map(({ line }) => line).sort()).toEqual(lines.sort())
})

/** Everybody there is, as they stand to the student with the number 1. */
const PEOPLE = [
  { name: undefined, role: undefined, relation: undefined },
  { name: 'imke.varga', role: 'student', relation: 'self' },
  { name: 'bram.ostrander', role: 'student', relation: undefined },
  { name: 'orla.denholt', role: 'programAdvisor', relation: 'programAdvisor' },
  { name: 'nell.fairweather', role: 'supportAdvisor', relation: 'supportAdvisor' },
  { name: 'casimir.boyle', role: 'programAdvisor', relation: undefined },
  { name: 'edda.whitlock', role: 'registrar', relation: 'registrar' },
  { name: 'idris.brandvold', role: 'instructor', relation: undefined },
  { name: 'tamsin.orford', role: 'department', relation: undefined },
  { name: 'perrin.hale', role: 'office', relation: undefined }
] as const
const PLACES: Record<string, string> = {
  id: '1',
  code: 'AU27',
  area: 'terms',
  course: 'ENDA-410',
  term: 'AU27',
  section: 'L9SQG',
  route: '1',
  week: '1',
  exception: '1',
  offer: '1',
  thread: '1',
  view: '99999',
  account: '99999',
  draft: '99999',
  guidance: '99999',
  token: '99999',
  webhook: '99999',
  delivery: '99999',
  import: '99999',
  hold: '99999',
  kind: '99999',
  graduation: '99999',
  condition: 'no-such-condition',
  transcript: '99999',
  opening: '99999',
  request: '1',
  suggestion: '1',
  appointment: '1',
  advisor: '1',
  line: '1',
  session: '999999',
  key: 'f'.repeat(32)
}

/** The status of a call without a body, of a stream as soon as it begins. */
async function statusOf(site: DemoSite, line: string, cookie: string | undefined): Promise<number> {
  const [method, pattern] = line.split(' ') as [string, string]
  const ends = new AbortController()
  const answer = await fetch(site.address + pattern.replace(/:(\w+)/g, (_, name: string) => PLACES[name]!), {
    method,
    headers: { ...(cookie && { cookie }), ...(method === 'POST' && { 'content-type': 'application/json' }) },
    ...(method === 'POST' && { body: '{}' }),
    signal: ends.signal
  })
  ends.abort()
  return answer.status
}

/** Without a browser: the cookie of a session. */
async function signInTo(site: DemoSite, name: string): Promise<string> {
  const answer = await fetch(`${site.address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name, password: DEMO_PASSWORD })
  })
  expect(answer.status).toBe(200)
  return answer.headers.get('set-cookie')!.split(';')[0]!
}

async function cookieOf(page: Page): Promise<string> {
  const [cookie] = await page.context().cookies()
  return `${cookie!.name}=${cookie!.value}`
}

/** Some at a time: the server waits for its database more than it works. */
async function each<T>(all: readonly T[], work: (one: T) => Promise<void>): Promise<void> {
  const queue = [...all]
  const next = async () => {
    for (let one; (one = queue.shift()) !== undefined;) await work(one)
  }
  await Promise.all(Array.from({ length: 6 }, next))
}

test('everybody may do what the table says, and nothing else', async ({ site }) => {
  let tried = 0
  for (const { name, role, relation } of PEOPLE) {
    const cookie = name && (await signInTo(site, name))
    const lines = Object.entries(ACCESS).filter(([line]) => hasFile(line) && line !== 'DELETE /api/session')
    await each(lines, async ([line, access]) => {
      const may =
        'open' in access ||
        ('roles' in access
          ? role !== undefined && (access.roles as readonly string[]).includes(role)
          : relation !== undefined && (access.relations as readonly string[]).includes(relation))
      const status = await statusOf(site, line, cookie)
      const label = `${name ?? 'nobody'}: ${line} gave ${status}`
      if (may) expect([401, 403], label).not.toContain(status)
      else expect(status, label).toBe(name ? 403 : 401)
      expect(status, label).toBeLessThan(500)
      tried++
    })
  }
  expect(tried).toBe(PEOPLE.length * (Object.keys(ACCESS).length - 2))
  const refused = await site.query("select account_id from event_log where action = 'access.refused'")
  expect(refused.length).toBeGreaterThan(100)
})

test('what others read of a record is logged, by whom and what; what is one’s own is not', async ({
  site
}) => {
  const read = async (name: string, ...paths: string[]) => {
    const page = await enterAnew(site, name)
    for (const path of paths) expect((await page.request.get(`/api/${path}`)).status(), path).toBe(200)
    await leave(page)
  }
  const logged = (name: string) =>
    site.query<{ action: string; student_id: number | null }>(
      'select action, student_id from event_log e join account a on a.id = e.account_id where a.sign_in = ? order by e.id desc limit 6',
      [name]
    )
  const all = ['', '/sheet?term=AU27', '/dates', '/classes?term=AU27', '/routes/1/versions']
  await read('orla.denholt', ...all.map((path) => `students/1${path}`), 'desk')
  expect(await logged('orla.denholt')).toEqual([
    { action: 'desk.read', student_id: null },
    ...['versions.read', 'classes.read', 'dates.read', 'sheet.read', 'record.read'].map((action) => ({
      action,
      student_id: 1
    }))
  ])
  await read('imke.varga', ...all.map((path) => `students/1${path}`))
  expect((await logged('imke.varga'))[0]).toEqual({ action: 'signIn.made', student_id: null })
})

test('a student sees who has read the record, when and in what part', async ({ site }) => {
  const orla = await enterAnew(site, 'orla.denholt')
  for (const path of ['', '/sheet?term=AU27']) await orla.request.get(`/api/students/1${path}`)
  await leave(orla)
  const imke = await enterAnew(site, 'imke.varga')
  await imke.goto('/account')
  const reads = imke.getByRole('region', { name: 'Who has read your record' })
  await expect(reads.getByRole('listitem').filter({ hasText: 'Orla Denholt' })).toContainText(
    'program advisor Fri 9 Apr 2027, last at 9:40 am'
  )
  await expect(reads.getByRole('listitem').filter({ hasText: 'Orla Denholt' })).toContainText('run sheet')
  await expect(reads).not.toContainText('Imke Varga')
  await leave(imke)
})

test('a record is sent as far as it is for whoever asks', async ({ site }) => {
  const imke = await enterAnew(site, 'imke.varga')
  const post = async (path: string, data: object) =>
    expect((await imke.request.post(`/api/students/1/${path}`, { data })).ok(), path).toBe(true)
  await post('keep-free', {
    hours: [{ name: 'Choir with Ada', days: [1], start: 1200, end: 1290, hard: true }]
  })
  await post('weeks', { term: 'AU27', name: 'If I win the prize' })
  await post('courses/ENDA-410', { starred: true, note: 'only if Ada takes it' })
  await post('terms/AU27', { text: 'talk with the bank first' })
  await post('calendar-address', {})
  const calendarKey = /"calendarKey":"[0-9a-f]{32}"/
  const seen = async (name: string) => {
    const page = await enterAnew(site, name)
    const text = await (await page.request.get('/api/students/1')).text()
    await leave(page)
    return text
  }
  const whole = await seen('imke.varga')
  const own = [
    'Choir with Ada',
    'If I win the prize',
    'only if Ada takes it',
    'talk with the bank first',
    'field season'
  ]
  for (const part of own) expect(whole).toContain(part)
  expect(whole).toMatch(calendarKey)
  const rows: [string, string[]][] = [
    ['orla.denholt', ['If I win the prize', 'talk with the bank first', 'field season']],
    ['nell.fairweather', ['talk with the bank first', 'field season']],
    ['edda.whitlock', []]
  ]
  for (const [name, parts] of rows) {
    const text = await seen(name)
    for (const part of own)
      expect(`${name}: ${part}: ${text.includes(part)}`).toBe(`${name}: ${part}: ${parts.includes(part)}`)
    expect(text).not.toMatch(calendarKey)
    // That hours are kept free is seen by all; the figures rest on it.
    expect(text).toContain('Kept free')
  }
  await leave(imke)
})

async function copyOf(site: DemoSite, page: Page): Promise<Page> {
  const copy = await visit(site)
  await copy.context().addCookies(await page.context().cookies())
  return copy
}

test('signing out ends the session for a copied cookie and its stream; a new password ends all others', async ({
  site
}) => {
  const page = await enterAnew(site, 'felix.abara')
  const copy = await copyOf(site, page)
  const { student } = (await (await copy.request.get('/api/session')).json()) as { student: number }
  const stream = await fetch(`${site.address}/api/news`, {
    headers: { cookie: await cookieOf(page) }
  })
  expect(stream.status).toBe(200)
  await page.request.delete('/api/session')
  // The stream ends: reading it comes to its end.
  for await (const _ of stream.body!);
  expect((await copy.request.get(`/api/students/${student}`)).status()).toBe(401)
  await leave(copy)

  const [one, other] = [await enterAnew(site, 'felix.abara'), await enterAnew(site, 'felix.abara')]
  const before = await cookieOf(one)
  const changed = await one.request.post('/api/account/password', {
    data: { present: 'harrowmere', next: 'four brass kettles' }
  })
  expect(changed.ok()).toBe(true)
  expect(await cookieOf(one)).not.toBe(before)
  expect((await one.request.get(`/api/students/${student}`)).status()).toBe(200)
  expect((await other.request.get(`/api/students/${student}`)).status()).toBe(401)
  for (const context of [page, one, other]) await leave(context)
})

test('one sees where one is signed in, ends it there, and changes the password, by keyboard @long', async ({
  site
}) => {
  const other = await enterAnew(site, 'jonas.thackeray')
  const page = await enterAnew(site, 'jonas.thackeray')
  await page.goto('/account')
  await settled(page)
  await clean(page, 'signing in')
  const list = page.getByRole('region', { name: 'Where you are signed in' })
  await expect(list.getByRole('listitem')).toHaveCount(2)
  await list
    .getByRole('button', { name: /^Sign out .* on / })
    .first()
    .focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('status').filter({ hasText: 'Signed out' })).toBeVisible()
  await expect(list.getByRole('listitem')).toHaveCount(1)
  expect((await other.request.get('/api/account/sessions')).status()).toBe(401)

  const field = (name: string) => page.getByLabel(name, { exact: true })
  await page.getByRole('button', { name: 'Change the password' }).focus()
  await page.keyboard.press('Enter')
  await expect(field('Present password')).toBeFocused()
  await field('Present password').fill('harrowmere')
  await field('New password').fill('short')
  await page.keyboard.press('Enter')
  await expect(page.getByText('This has to be 12 characters or more.')).toBeVisible()
  await field('New password').fill('nine grey pebbles')
  await page.keyboard.press('Enter')
  await expect(page.getByText('The password is changed.')).toBeVisible()
  await leave(other)
  await leave(page)
})

test('a second step is set up with an app, asked for at the door, and taken off @long', async ({ site }) => {
  const page = await enterAnew(site, 'casimir.boyle')
  await page.goto('/account')
  await settled(page)
  const part = page.getByRole('region', { name: 'A second step' })
  await part.getByRole('button', { name: 'Set it up' }).click()
  await expect(part.getByText('is needed')).toHaveCount(0)
  await part.getByLabel('Present password').fill('harrowmere')
  await page.keyboard.press('Enter')
  const secret = Secret.fromBase32((await part.locator('.secret').innerText()).replace(/\s/g, ''))
  const codeAt = (at: number) => new TOTP({ secret }).generate({ timestamp: at })
  await expect(part.getByRole('img', { name: 'The secret, for the camera of your app' })).toBeVisible()
  await expect(part.getByText('has to be the six digits')).toHaveCount(0)
  await clean(page, 'a second step that is set up')
  await part.getByLabel('Code').fill(codeAt(Date.now()))
  await page.keyboard.press('Enter')
  await expect(part.getByText('Eight codes, told here once')).toBeVisible()
  const [spare] = (await part.locator('code').innerText()).split('\n')

  const door = await visit(site)
  await door.goto('/sign-in')
  await door.getByLabel('Name').fill('casimir.boyle')
  await door.getByLabel('Password', { exact: true }).fill('harrowmere')
  await door.keyboard.press('Enter')
  await expect(door.getByLabel('Code')).toBeFocused()
  await clean(door, 'the door with a code')
  await door.keyboard.type('000000')
  await door.keyboard.press('Enter')
  await expect(door.getByText('This is not the code of this moment')).toBeVisible()
  await door.getByLabel('Code').fill(spare!)
  await door.keyboard.press('Enter')
  await expect(door).toHaveURL(/\/desk$/)
  await leave(door)

  await page.reload()
  await expect(part.getByText('7 written codes left')).toBeVisible()
  await part.getByRole('button', { name: 'Take it off' }).click()
  await part.getByLabel('Present password').fill('harrowmere')
  await page.keyboard.press('Enter')
  await expect(part.getByRole('button', { name: 'Set it up' })).toBeVisible()
  await leave(page)
})

test('where a second step is asked of the staff, nothing else is answered to them before it is set up', async ({
  site
}) => {
  const strict = await startSite(ROOT, await freePort(), site.url, {
    demo: true,
    env: { RIDGEWAY_SECOND_STEP: 'staff' }
  })
  try {
    const page = await visit(site)
    const ask = (path: string) => page.request.get(strict.address + path).then((one) => one.status())
    const post = (path: string, data: object) => page.request.post(strict.address + path, { data })
    const enter = async (name: string) =>
      (await (await post('/api/session', { name, password: 'harrowmere' })).json()) as object
    expect(await enter('imke.varga')).toMatchObject({ needsSecondStep: false })
    expect(await ask('/api/students/1')).toBe(200)
    expect(await enter('casimir.boyle')).toMatchObject({ needsSecondStep: true })
    expect(await Promise.all(['/api/desk', '/api/students/1', '/api/advisors'].map(ask))).toEqual([
      403, 403, 403
    ])
    expect(await Promise.all(['/api/catalog', '/api/account/sessions'].map(ask))).toEqual([200, 200])
    await page.goto(`${strict.address}/desk`)
    await expect(page).toHaveURL(/\/account$/)
    await expect(page.getByText('asks it of everybody who works here')).toBeVisible()
    const begun = await post('/api/account/second-step/begin', { present: 'harrowmere' })
    const { secret } = (await begun.json()) as { secret: string }
    const code = new TOTP({ secret: Secret.fromBase32(secret) }).generate()
    expect((await post('/api/account/second-step', { code })).ok()).toBe(true)
    expect(await ask('/api/desk')).toBe(200)
    const off = await post('/api/account/second-step/off', { present: 'harrowmere' })
    expect(await off.json()).toEqual({ needsSecondStep: true })
    expect(await ask('/api/desk')).toBe(403)
    await leave(page)
  } finally {
    await strict.stop()
  }
})

test('wrong passwords make wait, and say how long', async ({ site }) => {
  const guess = () =>
    fetch(`${site.address}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name: 'mira.sandoval', password: 'guess' })
    })
  for (let i = 0; i < 5; i++) expect((await guess()).status).toBe(401)
  const answer = await guess()
  expect(answer.status).toBe(429)
  expect(Number(answer.headers.get('retry-after'))).toBeGreaterThan(0)
  expect(((await answer.json()) as { message: string }).message).toMatch(/Try again in \d+ seconds/)
})

test('behind https the cookie is held to it, browsers are, and requests are of that address', async ({
  site
}) => {
  const behind = await startSite(ROOT, await freePort(), site.url, {
    env: { RIDGEWAY_ORIGIN: 'https://plan.harrowmere.example', RIDGEWAY_PROXIES: '1' }
  })
  try {
    const post = (path: string, headers: Record<string, string>, body: object) =>
      fetch(behind.address + path, {
        method: 'POST',
        headers: { 'content-type': 'application/json', ...headers },
        body: JSON.stringify(body)
      })
    const enter = { name: 'wren.castellan', password: 'guess' }
    const given = { name: 'imke.varga', password: 'harrowmere' }
    const own = { origin: 'https://plan.harrowmere.example' }
    expect((await post('/api/session', { origin: behind.address }, given)).status).toBe(403)
    const answer = await post('/api/session', own, given)
    expect(answer.status).toBe(200)
    const cookie = answer.headers.get('set-cookie')!
    expect(cookie).toMatch(/^__Host-ridgeway=[\w-]{43}; /)
    expect(cookie).toMatch(/; HttpOnly; Secure; SameSite=Strict$/i)
    const page = await fetch(`${behind.address}/sign-in`)
    expect(page.headers.get('strict-transport-security')).toMatch(/^max-age=\d{8}/)
    expect((await fetch(`${site.address}/sign-in`)).headers.has('strict-transport-security')).toBe(false)
    // Each address by itself, as the proxy has seen it; what is claimed before it is not believed.
    const guess = (seen: string) => post('/api/session', { ...own, 'x-forwarded-for': seen }, enter)
    for (let i = 0; i < 5; i++) expect((await guess(`198.51.100.${i}, 192.0.2.1`)).status).toBe(401)
    expect((await guess('198.51.100.9, 192.0.2.1')).status).toBe(429)
    expect((await guess('192.0.2.2')).status).toBe(401)
    // Not told that it is the demo, it is none: no cards, and no clock to move.
    expect((await fetch(`${behind.address}/api/demo/people`)).status).toBe(404)
    const clock = { mode: 'standing', at: '2027-04-09T13:00:00Z' }
    const signedIn = { ...own, cookie: cookie.split(';')[0]! }
    expect((await post('/api/clock', signedIn, clock)).status).toBe(404)
    expect((await post('/api/demo/morning', signedIn, { students: 1 })).status).toBe(404)
  } finally {
    await behind.stop()
  }
})
