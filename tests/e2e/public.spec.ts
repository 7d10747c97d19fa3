/** What anybody may read without signing in: light, the same for everybody, and nothing of anybody's record. */
import ICAL from 'ical.js'
import { clean } from './axe'
import { expect, leave, PHONE, scenarioOfReading, test, visit } from './site'

test.use({ scenario: scenarioOfReading('public') })

const PAGES = [
  '/public',
  '/public/courses?subject=ENDA',
  '/public/courses/ENDA-310',
  '/public/programs',
  '/public/programs/ENVD',
  '/public/offer/AU27?subject=SOIL',
  '/public/openings',
  '/public/interface',
  '/public/interface/terms',
  '/public/interface/types'
]

test('the catalog, programs and the offer are read without signing in', async ({ site }) => {
  const page = await visit(site)
  await page.goto('/sign-in')
  await page.getByRole('link', { name: 'Look around without signing in' }).click()
  await expect(page.getByRole('img', { name: /Autumn 2027 from 30 Aug to/ })).toBeVisible()
  await expect(
    page.getByRole('row', { name: /Mon 12 Apr 2027, 7:00 am.*third-year students.*in 3 days/ })
  ).toBeVisible()
  await page.getByRole('link', { name: 'Courses', exact: true }).click()
  await page.getByRole('searchbox').fill('spatial datbases')
  await page.getByRole('button', { name: 'Find' }).click()
  await page.getByRole('link', { name: 'ENDA 310', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'ENDA 310 Spatial Databases' })).toBeVisible()
  await expect(page.getByRole('definition').filter({ hasText: 'ENDA 240 and STAT 110' })).toBeVisible()
  const [{ taken, capacity }] = (await site.query<{ taken: number; capacity: number }>(
    "select taken, capacity from section where code = 'F5NAB'"
  )) as [{ taken: number; capacity: number }]
  await expect(page.getByRole('row', { name: /ENDA 310-01 F5NAB/ })).toContainText(
    `${capacity - taken} of ${capacity} left`
  )
  await page.getByRole('link', { name: 'Programs', exact: true }).click()
  await page.getByRole('link', { name: 'BSc Environmental Data' }).click()
  await expect(page.getByText('5 courses, 18 cr')).toBeVisible()
  await expect(page.getByRole('heading', { name: /^Term 8/ })).toBeVisible()
  await leave(page)
})

test('public pages load no script, set no cookie, and name no student @long', async ({ site }) => {
  const page = await visit(site)
  const scripts: string[] = []
  page.on('request', (one) => {
    if (one.resourceType() === 'script') scripts.push(one.url())
  })
  const students = await site.query<{ name: string }>('select name from account where role = ?', ['student'])
  expect(students.length).toBeGreaterThan(300)
  for (const path of PAGES) {
    await page.goto(path)
    const html = await page.content()
    expect(
      students.filter(({ name }) => html.includes(name)),
      path
    ).toEqual([])
    await clean(page, path)
  }
  expect(scripts).toEqual([])
  expect(await page.context().cookies()).toEqual([])
  await leave(page)
})

test('public pages fit a phone', async ({ site }) => {
  const page = await visit(site, PHONE)
  for (const path of PAGES) {
    await page.goto(path)
    expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(390)
  }
  await leave(page)
})

test('the year is a calendar that others can read', async ({ site }) => {
  const page = await visit(site)
  const answer = await page.request.get('/public/calendar.ics')
  const events = new ICAL.Component(ICAL.parse(await answer.text()) as unknown[]).getAllSubcomponents(
    'vevent'
  )
  const said = events.map((one) => String(one.getFirstPropertyValue('summary')))
  expect(said).toContain('Autumn 2027 begins')
  expect(said).toContain('Registration for Autumn 2027 opens: third-year students')
  expect(new Set(events.map((one) => one.getFirstPropertyValue('uid'))).size).toBe(events.length)
  await leave(page)
})

test('what is not there says so, and an address is not asked for without end', async ({ site }) => {
  const page = await visit(site)
  for (const path of ['/public/courses/ENDA-999', '/public/programs/NONE', '/public/offer/XX99']) {
    const answer = await page.goto(path)
    expect(answer!.status(), path).toBe(404)
    await expect(page.getByRole('link', { name: 'To the year' })).toBeVisible()
  }
  const first = await page.request.get('/public/courses')
  const head = await page.request.head('/public/courses')
  expect([head.status(), head.headers().etag]).toEqual([200, first.headers().etag])
  const again = await page.request.get('/public/courses', {
    headers: { 'if-none-match': first.headers().etag! }
  })
  expect(again.status()).toBe(304)
  let answer = first
  for (let n = 0; n < 250 && answer.status() === 200; n++) answer = await page.request.get('/public/programs')
  expect(answer.status()).toBe(429)
  expect(Number(answer.headers()['retry-after'])).toBeGreaterThan(0)
  await leave(page)
})
