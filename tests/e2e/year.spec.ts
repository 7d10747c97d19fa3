/** Telling instants of a year: nothing that a student holds is lost from the screen, and nothing absurd stands there. */
import { clean } from './axe'
import { enter, expect, setClock, test, leave } from './site'

test.use({ scenario: 'year' })

const BEFORE = '2027-04-09T13:00:00Z'
const FIRST_DAY = '2027-08-30T13:00:00Z'
const ADDING_ENDED = '2027-09-15T13:00:00Z'
const OVER = '2027-12-20T15:00:00Z'

test('a term lives from its first day until its grades are posted @long', async ({ site }) => {
  const mira = await enter(site, 'mira.sandoval')
  await mira.goto('/')
  await expect(mira).toHaveURL(/\/today$/)
  const base = mira.url().replace('/today', '')
  const place = (name: string) => mira.getByRole('link', { name: new RegExp(`^${name}`) })
  const seat = (course: string) => mira.getByRole('row', { name: new RegExp(course) })

  await test.step('first day: adding is open, the seats are there, and what is left can be registered', async () => {
    await setClock(mira, FIRST_DAY)
    await mira.goto(`${base}/register`)
    await expect(mira.getByRole('heading', { level: 1, name: 'Autumn 2027' })).toBeVisible()
    await expect(mira.getByText('open now')).toBeVisible()
    await expect(seat('ENDA 310')).toContainText('registered')
    await expect(place('Register')).toContainText('open, 2 to register')
    await mira.goto(`${base}/week`)
    await expect(mira.locator('.bar.registered', { hasText: 'ENDA 310' })).toHaveCount(2)
    await expect(place('Route')).not.toContainText('nothing planned')
    await mira.goto(`${base}/today`)
    // Paid for, so nothing is owed and nothing is lost.
    await expect(mira.getByText('The climb')).toBeVisible()
    await expect(mira.getByText('is owed for Autumn 2027')).toHaveCount(0)
  })

  await test.step('a term chosen to look at stays chosen over a reload', async () => {
    await mira.goto(`${base}/week`)
    await mira.getByRole('button', { name: 'go to Spring 2027' }).click()
    await expect(mira.getByRole('heading', { level: 1, name: 'Spring 2027' })).toBeVisible()
    await mira.reload()
    await expect(mira.getByRole('heading', { level: 1, name: 'Spring 2027' })).toBeVisible()
    await mira.getByRole('button', { name: 'go to Autumn 2027' }).click()
  })

  await test.step('adding has ended: it is said until when to drop, and no seat is lost', async () => {
    await setClock(mira, ADDING_ENDED)
    await mira.goto(`${base}/register`)
    await expect(mira.getByText('adding ended', { exact: true })).toBeVisible()
    await expect(mira.getByText(/Courses can be dropped until/)).toBeVisible()
    await expect(seat('MATH 231')).toContainText('registered')
    await expect(mira.getByRole('button', { name: /^Register \d/ })).toHaveCount(0)
    await clean(mira, 'register after adding')
  })

  await test.step('the term is over: its grades are due, and nothing is planned for it any more', async () => {
    await setClock(mira, OVER)
    await mira.goto(`${base}/today`)
    await expect(mira.getByText('Grades of Autumn 2027 are due')).toBeVisible()
    await expect(place('Register')).toContainText('grades due')
    await mira.goto(`${base}/degree`)
    await expect(mira.getByText(/0 under way/).first()).toBeVisible()
    await expect(mira.getByText(/in Autumn 27/)).toHaveCount(0)
  })

  await test.step('the registrar posts the grades; they count as earned', async () => {
    const registrar = await enter(site, 'edda.whitlock')
    await registrar.goto('/terms')
    for (const term of ['Spring 2027', 'Autumn 2027']) {
      await registrar.locator('section.due', { hasText: term }).getByRole('button').click()
      await expect(
        registrar.getByText(new RegExp(`\\d+ grades? of ${term} posted for \\d+ students`))
      ).toBeVisible()
    }
    await clean(registrar, 'terms')
    await leave(registrar)
    await mira.goto(`${base}/today`)
    await expect(mira.getByText(/^Grades of/)).toHaveCount(0)
    await expect(mira.getByText(/with grades due/)).toHaveCount(0)
  })
  await leave(mira)
})

test('an address that is not there, and a page of somebody else, keep the own places and a way back @long', async ({
  site
}) => {
  const page = await enter(site, 'mira.sandoval')
  await page.goto('/nowhere/at/all')
  await expect(page.getByRole('heading', { name: 'There is no page at this address' })).toBeVisible()
  await clean(page, 'no page')
  await page.goto('/desk')
  await expect(page.getByRole('heading', { name: 'This page is not one of yours' })).toBeVisible()
  await page.getByRole('link', { name: /^Route/ }).click()
  await expect(page.locator('.board')).toBeVisible()
  await leave(page)

  const advisor = await enter(site, 'orla.denholt')
  await advisor.goto('/terms')
  await expect(advisor.getByRole('heading', { name: 'This page is not one of yours' })).toBeVisible()
  await advisor.getByRole('button', { name: 'Back to Desk' }).click()
  await expect(advisor.getByRole('heading', { name: /^Your desk/ })).toBeVisible()
  await leave(advisor)
})

test('an advisor reads of the student, and finds no button that only the student has', async ({ site }) => {
  const advisor = await enter(site, 'orla.denholt')
  await setClock(advisor, BEFORE)
  for (const place of ['today', 'degree', 'register']) {
    await advisor.goto(`/students/1/${place}`)
    await expect(advisor.getByText('Viewing Imke Varga, as their advisor')).toBeVisible()
    await advisor.waitForLoadState('networkidle')
    const text = await advisor.locator('main').innerText()
    // The title of a requirement is the program's own.
    const own = text
      .split('\n')
      .filter((line) => /\byour?s?\b/i.test(line) && !/you read |of your choice$/.test(line))
    expect({ place, own }).toEqual({ place, own: [] })
  }
  await expect(advisor.getByRole('button', { name: 'Ask for review' })).toHaveCount(0)
  await leave(advisor)
})
