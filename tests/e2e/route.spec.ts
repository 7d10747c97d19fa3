import { readFile } from 'node:fs/promises'
import type { Page } from '@playwright/test'
import { settled } from './axe'
import { choose, enter, enterFirst, expect, leave, PHONE, test } from './site'

test.use({ scenario: 'route' })

const cell = (page: Page, course: string) => page.locator(`[data-course="${course}"]`)
/** The heading of the column in which a course stands. */
async function termOf(page: Page, course: string): Promise<string> {
  return cell(page, course).evaluate((element) => {
    const td = element.closest('td')!
    const at = [...td.parentElement!.children].indexOf(td)
    return td
      .closest('table')!
      .querySelectorAll('thead th')
      [at]!.querySelector('.display')!
      .textContent!.trim()
  })
}
async function openRoute(page: Page, id = 1) {
  await page.goto(`/students/${id}/route`)
  await expect(page.locator('.board')).toBeVisible()
}

test('a course is dragged to another term, undone after a reload, done again by keys', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await openRoute(page)
  expect(await termOf(page, 'HYDR 330')).toBe('Spring 28')
  const row = page.locator('tr', { has: cell(page, 'HYDR 330') })
  const target = row.locator('td').nth(6)
  await cell(page, 'HYDR 330').dragTo(target)
  await expect(page.getByText('Move HYDR 330 to Spring 29: done.')).toBeVisible()
  expect(await termOf(page, 'HYDR 330')).toBe('Spring 29')

  await openRoute(page)
  await page.keyboard.press('Control+z')
  await expect(page.getByText('taken back')).toBeVisible()
  expect(await termOf(page, 'HYDR 330')).toBe('Spring 28')
  await page.keyboard.press('Control+Shift+z')
  await expect(page.getByText('done again')).toBeVisible()
  expect(await termOf(page, 'HYDR 330')).toBe('Spring 29')
  await page.getByRole('button', { name: /^Undo: Move HYDR 330/ }).click()
  await expect.poll(() => termOf(page, 'HYDR 330')).toBe('Spring 28')
  await leave(page)
})

test('each thing that is said stays as long as the first, and while it is pointed at @long', async ({
  site
}) => {
  const page = await enter(site, 'imke.varga')
  await openRoute(page)
  const said = page.locator('.v-snackbar__wrapper')
  const step = async (keys: string, text: string) => {
    await page.keyboard.press(keys)
    await expect(said).toContainText(text)
  }
  await cell(page, 'HYDR 330').focus()
  await page.keyboard.press('Space')
  await page.keyboard.press('ArrowRight')
  await step('Space', ': done.')
  await page.waitForTimeout(6000)
  await step('Control+z', ': taken back.')
  // The first would be gone by now.
  await page.waitForTimeout(4000)
  await expect(said).toContainText(': taken back.')
  await said.hover()
  await page.waitForTimeout(5000)
  await expect(said).toContainText(': taken back.')
  await page.mouse.move(300, 300)
  await expect(said).toBeHidden()
  await leave(page)
})

test('while a course is lifted its terms are framed, the others say why not', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await openRoute(page)
  await cell(page, 'HYDR 330').focus()
  await page.keyboard.press('Space')
  await expect(page.locator('td.legal')).toHaveCount(2)
  await expect(page.locator('td.illegal').first()).toContainText('No section in Autumn 27.')
  await page.keyboard.press('Escape')
  await expect(page.locator('td.legal')).toHaveCount(0)
  await cell(page, 'ENDA 480').focus()
  await expect(
    page.getByText(/ENDA 480 may stand in .*; it needs ENDA 310; ENDA 490 waits for it/)
  ).toBeVisible()
  await expect(page.locator('.course.linked')).toHaveCount(2)
  await leave(page)
})

test('a need is dropped on a term and offers the courses that fit there', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await openRoute(page)
  const need = page.getByRole('button', { name: /^A course in speaking/ })
  const row = page.locator('tr', { has: need })
  await need.dragTo(row.locator('td').nth(3))
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByRole('heading', { name: 'A course in speaking' })).toBeVisible()
  await expect(dialog.getByRole('combobox', { name: 'Term' }).last()).toHaveValue('Spring 2028')
  await leave(page)
})

test('the rest is filled in, looked at on the board, taken in part and taken back at once', async ({
  site
}) => {
  const page = await enter(site, 'imke.varga')
  await openRoute(page)
  const planned = async () =>
    (await site.query<{ n: number }>('select count(*) as n from planned_course where route_id = 1'))[0]!.n
  const before = await planned()
  await page.getByRole('button', { name: 'Fill the rest' }).click()
  await page.getByRole('button', { name: 'Look for a way' }).click()
  const take = page.getByRole('button', { name: /^Take all \d+ courses$/ })
  await expect(take).toBeVisible({ timeout: 20_000 })
  await expect(page.getByText(/^Finishes in .* no way is earlier/)).toBeVisible()
  await expect(page.getByText('0 cr needed')).toBeVisible()
  const proposed = await page.locator('.course.proposed').count()
  expect(proposed).toBeGreaterThan(2)
  await page.locator('.fill input[type="checkbox"]').first().uncheck()
  await expect(page.locator('.course.proposed')).toHaveCount(proposed - 1)
  await page.getByRole('button', { name: `Take ${proposed - 1} of ${proposed}` }).click()
  await expect(page.locator('.course.proposed')).toHaveCount(0)
  await expect.poll(planned).toBe(before + proposed - 1)
  await page.getByRole('button', { name: /^Undo: \d+ changes at once/ }).click()
  await expect.poll(planned).toBe(before)
  await leave(page)
})

test('notes, locks, limits and terms spent elsewhere are kept and checked', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await openRoute(page)
  await cell(page, 'HERI 210').focus()
  await page.keyboard.press('n')
  await page.getByRole('textbox', { name: 'Note on HERI 210' }).fill('only with the morning section')
  await page.keyboard.press('Enter')
  await expect(cell(page, 'HERI 210')).toContainText('only with the morning section')
  await cell(page, 'HERI 210').click()
  await page.getByRole('menuitem', { name: 'Lock in this term' }).click()
  await expect(cell(page, 'HERI 210')).toContainText('locked')
  await page.getByRole('button', { name: 'My limits' }).click()
  await page.getByRole('spinbutton', { name: 'Hours of study a week' }).fill('24')
  await choose(page, 'Where I am in Summer 2028', 'on exchange')
  await page.getByRole('button', { name: 'Keep' }).click()
  await expect(page.getByText('FELD 390 in Summer 28', { exact: true })).toBeVisible()
  await expect(page.getByText('stands in Summer 28, which is marked as an exchange.')).toBeVisible()
  await expect(page.getByText('asks for 34 hours of study a week; you have 24.')).toBeVisible()
  await leave(page)
})

test('routes are copied, compared and chosen, and a version is returned to @long', async ({ site }) => {
  const page = await enter(site, 'bram.ostrander')
  await page.goto('/')
  await page.waitForURL(/students/)
  const id = Number(/students\/(\d+)/.exec(page.url())![1])
  await openRoute(page, id)
  await page.getByRole('button', { name: 'Routes', exact: true }).click()
  await page.getByRole('textbox', { name: 'New route' }).fill('With a summer')
  await page.getByRole('button', { name: /^Copy of/ }).click()
  await expect(page.getByRole('heading', { name: 'Route “With a summer”' })).toBeVisible()
  await expect(page.getByText('This is not the chosen route')).toBeVisible()
  const course = page.locator('[data-course]:not([aria-haspopup="false"])').last()
  const code = (await course.getAttribute('data-course'))!
  await course.click()
  await page.getByRole('menuitem', { name: 'Take off the route' }).click()
  await expect(page.getByText(`${code} in`).first()).toBeVisible()
  await page.getByRole('button', { name: 'Choose With a summer' }).click()
  await expect(page.getByText('This is not the chosen route')).toBeHidden()
  // It is shown at once, and made a moment later.
  await expect
    .poll(() => site.query<{ name: string }>('select name from route where student_id = ? and chosen', [id]))
    .toEqual([{ name: 'With a summer' }])
  await leave(page)
})

test('two browsers on one route see each other, and a stale change is refused with what was changed @long', async ({
  site
}) => {
  const one = await enter(site, 'imke.varga')
  const two = await enter(site, 'imke.varga')
  await openRoute(one)
  await openRoute(two)
  await cell(one, 'MUSI 102').click()
  await one.getByRole('menuitem', { name: 'Take off the route' }).click()
  await expect(cell(two, 'MUSI 102')).toHaveCount(0)
  await expect(two.getByText('Imke Varga changed the route; you see it as it is now.')).toBeVisible()

  // The second browser no longer hears, and so changes an older version.
  await two.route('**/api/news*', (route) => route.abort())
  await two.reload()
  await expect(two.locator('.board')).toBeVisible()
  await one.getByRole('button', { name: /^Undo: Take MUSI 102/ }).click()
  await expect(cell(one, 'MUSI 102')).toBeVisible()
  await cell(two, 'HERI 210').click()
  await two.getByRole('menuitem', { name: 'Take off the route' }).click()
  await expect(two.getByText(/Imke Varga was faster \(MUSI 102 added to Spring 28\)/)).toBeVisible()
  await expect(cell(two, 'HERI 210')).toBeVisible()
  await two.getByRole('button', { name: 'Make it now' }).click()
  await expect(cell(two, 'HERI 210')).toHaveCount(0)
  await expect(cell(one, 'HERI 210')).toHaveCount(0)
  await leave(one)
  await leave(two)
})

test('without a connection changes wait, say so, and are sent when it is back', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await openRoute(page)
  await page.route('**/api/students/1/route', (route) => route.abort())
  await cell(page, 'ENDA 360').click()
  await page.getByRole('menuitem', { name: 'Take off the route' }).click()
  await expect(page.getByText('The server cannot be reached. 1 change waits here')).toBeVisible()
  await expect(cell(page, 'ENDA 360')).toHaveCount(0)
  await page.unroute('**/api/students/1/route')
  await expect(page.getByText('The connection is back; everything is saved.')).toBeVisible({
    timeout: 15_000
  })
  await openRoute(page)
  await expect(cell(page, 'ENDA 360')).toHaveCount(0)
  await leave(page)
})

test('a course is found by a part of its name and put on the route by one more key', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await openRoute(page)
  await page.keyboard.press('/')
  await page.keyboard.type('spch101')
  const hint = page.getByText(/Shift\+Enter puts SPCH 101 into/)
  const term = /into (\w+ \d+)/.exec(await hint.innerText())![1]!
  await page.keyboard.press('Shift+Enter')
  await expect(page.getByText(`Add SPCH 101 to ${term}: done.`)).toBeVisible()
  expect(await termOf(page, 'SPCH 101')).toBe(term)
  await leave(page)
})

test('a course that is asked for before the courses are there is opened once they are @long', async ({
  site
}) => {
  // A browser that was here before may have the search already, and asks for nothing that could be held back.
  const page = await enterFirst(site, 'imke.varga')
  let arrive!: () => void
  const arrived = new Promise<void>((resolve) => (arrive = resolve))
  await page.goto('/students/1/today')
  await settled(page)
  // The search is read when it is first asked for.
  await page.route('**/_nuxt/*.js', (route) => void arrived.then(() => route.continue()))
  await page.keyboard.press('/')
  await page.keyboard.type('envi310')
  await expect(page.getByText('Courses are being read.')).toBeVisible()
  await page.keyboard.press('Enter')
  arrive()
  await expect(page.getByRole('heading', { name: 'ENVI 310 Environmental Impact' })).toBeVisible()
  await leave(page)
})

test('on a narrow screen a course is moved, noted and taken off, a term at a time @long', async ({
  site
}) => {
  const page = await enter(site, 'imke.varga', PHONE)
  await page.goto('/students/1/route')
  await choose(page, 'Show', /^Spring 2029/)
  await cell(page, 'ENDA 490').click()
  await page.getByRole('menuitem', { name: 'Add a note' }).click()
  await page.getByRole('textbox', { name: 'Note on ENDA 490' }).fill('with the survey office')
  await page.keyboard.press('Enter')
  await expect(cell(page, 'ENDA 490')).toContainText('with the survey office')
  await page.getByRole('button', { name: 'Fill the rest' }).click()
  await page.getByRole('button', { name: 'Look for a way' }).click()
  await expect(page.getByRole('button', { name: /^Take all/ })).toBeVisible({ timeout: 20_000 })
  const wide = await page.evaluate(() => document.documentElement.scrollWidth > window.innerWidth)
  expect(wide).toBe(false)
  await leave(page)
})

test('a waiver is asked for, granted by the advisor, and settles its finding @long', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await openRoute(page)
  await page.getByRole('button', { name: 'Ask to be excused from the prerequisite: ENDA 410' }).click()
  await page.getByLabel('why you ask').fill('Took its like in a summer school')
  await page.getByRole('button', { name: 'Ask', exact: true }).click()
  await expect(
    page.getByText('“Took its like in a summer school” Waits for the program advisor.')
  ).toBeVisible()

  const advisor = await enter(site, 'orla.denholt')
  await advisor.goto('/desk')
  await expect(advisor.locator('tr', { hasText: 'Imke Varga' })).toContainText('a request waits')
  await openRoute(advisor)
  await advisor.getByRole('button', { name: 'Grant it: ENDA 410' }).click()
  await expect(advisor.getByText('given by Orla Denholt, today.')).toBeVisible()
  // The student hears of it without reloading.
  await expect(page.getByText('given by Orla Denholt, today.')).toBeVisible()
  await expect(page.getByText('ENDA 410 in Autumn 28')).toHaveCount(0)
  await advisor.getByRole('button', { name: 'Take it back: ENDA 410' }).click()
  await expect(page.getByText('ENDA 410 in Autumn 28')).toBeVisible()
  await Promise.all([leave(page), leave(advisor)])
})

test('a term is noted on, past terms show what they came to, and dates go into a calendar @long', async ({
  site
}) => {
  const page = await enter(site, 'imke.varga')
  await openRoute(page)
  await page.getByRole('button', { name: 'Add a note on Autumn 2027' }).click()
  await page.keyboard.type('ten hours at the library')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: /^Note on Autumn 2027: ten hours/ })).toBeVisible()
  await openRoute(page)
  await expect(page.getByRole('button', { name: /^Note on Autumn 2027: ten hours/ })).toBeVisible()
  await page.getByRole('button', { name: 'Behind you' }).click()
  await expect(page.getByRole('columnheader', { name: /^Autumn 26 20 cr earned · GPA 3\.16/ })).toBeVisible()

  await page.getByRole('button', { name: 'Print or export' }).click()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByText('Save dates and deadlines as iCalendar').click()
  ])
  expect(file.suggestedFilename()).toMatch(/^dates-.*\.ics$/)
  const text = await readFile(await file.path(), 'utf8')
  expect(text).toContain('UID:AU27-opening@ridgeway')
  await leave(page)
})
