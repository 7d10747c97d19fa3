import { existsSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { clean, settled, wellMade } from './axe'
import {
  choose,
  enter,
  enterAnew,
  expect,
  go,
  leave,
  PHONE,
  ROOT,
  scenarioOfReading,
  setClock,
  test,
  type DemoSite
} from './site'

test.use({ scenario: scenarioOfReading('views') })

const STUDENT = [
  'today',
  'degree',
  'degree/compare',
  'degree/program',
  'degree/trial',
  'route',
  'week',
  'week/find',
  'week/sections',
  'register'
]

test('every view of a student is clean @long', async ({ site }) => {
  test.slow()
  const page = await enter(site, 'imke.varga')
  const problems: string[] = []
  page.on('pageerror', (error) => problems.push(error.message))
  page.on('console', (message) => message.type() === 'error' && problems.push(message.text()))
  for (const view of STUDENT) {
    await go(page, `/students/1/${view}`)
    await settled(page)
    await clean(page, view)
  }
  await go(page, '/students/1/degree')
  await page.getByRole('button', { name: 'How this is read' }).click()
  await expect(page.getByText('needs that no course left could complete')).toBeVisible()
  await clean(page, 'how it is read')
  await page.keyboard.press('Escape')
  await page
    .getByRole('button', { name: /needed ·/ })
    .first()
    .click()
  await page.getByRole('combobox', { name: 'Find a course' }).fill('envi310')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'ENVI 310 Environmental Impact' })).toBeVisible()
  await expect(page.getByText('Reading and writing impact statements')).toBeVisible()
  await clean(page, 'course panel')
  await go(page, '/students/1/route')
  await settled(page)
  for (const button of ['My limits', 'Routes', 'Fill the rest'])
    await page.getByRole('button', { name: button, exact: true }).click()
  await page.getByRole('button', { name: 'Look for a way' }).click()
  await expect(page.getByRole('button', { name: /^Take all/ })).toBeVisible({ timeout: 20_000 })
  await clean(page, 'filling')
  await page.getByRole('button', { name: 'My limits' }).click()
  await clean(page, 'what can be carried')
  await page.getByRole('button', { name: 'Routes', exact: true }).click()
  await clean(page, 'routes')
  expect(problems).toEqual([])
  await leave(page)
})

test('every view works on a phone, without scrolling sideways @long', async ({ site }) => {
  test.slow()
  const page = await enter(site, 'imke.varga', PHONE)
  for (const view of STUDENT) {
    await go(page, `/students/1/${view}`)
    await settled(page)
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)
    expect(wide, view).toBeLessThanOrEqual(0)
    await wellMade(page, `${view} narrow`)
  }
  await go(page, '/students/1/week')
  await expect(page.locator('.days strong')).toHaveText('Monday')
  await page.getByRole('button', { name: 'Day after' }).click()
  await expect(page.locator('.days strong')).toHaveText('Tuesday')
  await go(page, '/students/1/route')
  await choose(page, 'Show', 'Spring 2028')
  await expect(page.locator('[data-course="ENDA 360"]')).toBeVisible()
  await leave(page)
})

test('an empty record shows what to do first on every view @long', async ({ site }) => {
  const page = await enter(site, 'jonas.thackeray')
  await page.goto('/')
  await expect(page.getByText('Nothing is planned for Autumn 2027')).toBeVisible()
  await expect(page.getByText('The climb begins with the first course')).toBeVisible()
  const base = page.url().replace('/today', '')
  await page.goto(`${base}/degree`)
  await expect(page.getByText('0 earned · 0 under way 0 mapped · 30 needed')).toBeVisible()
  await page.goto(`${base}/week`)
  await expect(page.getByRole('link', { name: 'See what your degree needs' })).toBeVisible()
  await page.goto(`${base}/register`)
  await expect(page.getByRole('heading', { name: 'The run sheet is empty' })).toBeVisible()
  await leave(page)
})

test('a server that does not answer is said so, with a retry that works', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await page.route('**/api/students/1', (route) => route.abort())
  await page.goto('/students/1/degree')
  await expect(page.getByRole('alert')).toContainText('The server cannot be reached')
  await clean(page, 'failed')
  await page.unroute('**/api/students/1')
  await page.getByRole('button', { name: 'Try again' }).click()
  await expect(page.getByRole('heading', { name: 'BSc Environmental Data' })).toBeVisible()
  await leave(page)
})

test('a record of somebody else is refused in words', async ({ site }) => {
  const page = await enter(site, 'bram.ostrander')
  await page.goto('/students/1/today')
  await expect(page.getByText('This page is not one of yours')).toBeVisible()
  await leave(page)
})

test('a wrong program is reported, and the audit says that it rests on it', async ({ site }) => {
  const page = await enter(site, 'felix.abara')
  await page.goto('/')
  await page.getByRole('button', { name: 'It is wrong' }).click()
  await page.getByLabel('Which program and catalog year is right?').fill('BSc Environmental Data, 2025-26')
  await page.getByRole('button', { name: 'Report it' }).click()
  await expect(page.getByText('You said that BA Heritage is wrong')).toBeVisible()
  await page.getByRole('link', { name: /^Degree/ }).click()
  await expect(page.getByText('This reading rests on an unconfirmed program')).toBeVisible()
  await leave(page)
})

test('holds, a place in line, seats placed by an office and a changed sign-off are told @long', async ({
  site
}) => {
  const tell = async (who: string, path: string, text: string | RegExp) => {
    const page = await enter(site, who)
    await setClock(page, '2027-04-09T13:40:00.000Z')
    const { student } = (await (await page.request.get('/api/session')).json()) as { student: number }
    await page.goto(`/students/${student}${path}`)
    await expect(page.getByText(text).first()).toBeVisible()
    await leave(page)
  }
  await tell('bram.ostrander', '/register', /Hold: library fine 14.50/)
  await tell('mira.sandoval', '/today', /You are number 1 of 1 for/)
  await tell('tamsin.roe', '/week', 'placed by an office')
  await tell('priya.castellane', '/route', 'Changed since: STAT 250 added, MATH 231 taken out.')
  await tell('saoirse.lindqvist', '/degree', /2 credits needed/)
  await tell('ottilie.marsh', '/route', /would count toward nothing/)
})

/** Of a file of the build, to a browser that reads brotli; small ones are sent as they are. */
function bytesSent(path: string): number {
  const file = join(ROOT, '.output', 'public', path)
  return statSync(existsSync(`${file}.br`) ? `${file}.br` : file).size
}

/** What a place loads as scripts when somebody comes there first, in bytes as they are sent; and how often it asks. */
async function firstLoad(site: DemoSite, place: string): Promise<{ bytes: number; requests: number }> {
  const page = await enterAnew(site, 'imke.varga')
  const scripts = new Map<string, number>()
  let requests = 0
  page.on('request', () => requests++)
  page.on('response', (response) => {
    if (response.url().endsWith('.js'))
      scripts.set(response.url(), bytesSent(new URL(response.url()).pathname))
  })
  await page.goto(`/students/1/${place}`)
  await settled(page)
  await expect.poll(() => scripts.size).toBeGreaterThan(0)
  await page.waitForTimeout(1000)
  await leave(page)
  return { bytes: [...scripts.values()].reduce((sum, bytes) => sum + bytes, 0), requests }
}

test('the first load of Today is small, and asks for few things', async ({ site }) => {
  const { bytes, requests } = await firstLoad(site, 'today')
  expect(bytes).toBeLessThan(250_000)
  expect(requests).toBeLessThanOrEqual(30)
})

test('no place brings along what only others need, or asks often @long', async ({ site }) => {
  const places = ['degree', 'degree/record', 'route', 'week', 'week/find', 'week/sections', 'register']
  for (const place of places) {
    const { bytes, requests } = await firstLoad(site, place)
    expect(bytes, place).toBeLessThan(320_000)
    expect(requests, place).toBeLessThanOrEqual(30)
  }
})

test('Degree tells where each course counts, what moving it costs, and what the GPA asks for', async ({
  site
}) => {
  const page = await enter(site, 'imke.varga')
  await page.goto('/students/1/degree')
  await settled(page)

  // The picture and the table behind it say the same as the tree.
  const flow = page.getByRole('table', { name: 'Where each course counts' })
  await expect(flow.getByRole('row', { name: /STAT 110 3 completed Quantitative/ })).toHaveCount(1)
  await expect(page.locator('.flow svg path').first()).toBeVisible()
  const counting = await page.locator('.tree .areas').first().locator('.evidence .chip').count()
  expect(counting).toBeGreaterThan(20)
  await expect(flow.getByRole('row')).toHaveCount(counting + 1)

  await page
    .getByRole('button', { name: /^STAT 212/ })
    .first()
    .click()
  const panel = page.getByRole('complementary', { name: 'Course STAT 212' })
  await expect(panel.getByText('Counts toward 14 credits of mathematics and statistics')).toBeVisible()
  await expect(panel.getByText(/would open 14 credits of mathematics/)).toBeVisible()
  await panel.getByRole('button', { name: 'Close' }).click()

  await page.getByRole('button', { name: 'Still needed' }).click()
  await expect(page.getByRole('heading', { name: 'Quantitative' })).toHaveCount(0)
  await expect(page.getByRole('heading', { name: 'Writing & speaking' })).toBeVisible()

  await page.getByRole('button', { name: 'forecast' }).click()
  await page.getByLabel('Target').fill('3.50')
  await expect(
    page.getByText(/^It takes an average of 3\.\d\d over the 72 credits still to come/)
  ).toBeVisible()
  await page.getByLabel('Target').fill('nine')
  await expect(page.getByText('Write a target between 0.00 and 4.00.')).toBeVisible()
  await clean(page, 'degree with forecast')
  await leave(page)
})
