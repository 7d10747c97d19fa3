import type { Locator, Page } from '@playwright/test'
import { choose, enter, expect, test, leave } from './site'

test.use({ scenario: 'plan' })

/** Begins in the autumn with an empty record; her program and the certificate beside it take two years. */
const NAME = 'maren.tolliver'
const COURSES = [
  ['GEOS 101', 'GEOS 110', 'FELD 101', 'WRIT 101', 'ETHI 101', 'MATH 110'],
  ['GEOS 120', 'FELD 120', 'FELD 230', 'CSCI 101', 'SPCH 101'],
  ['GEOS 210', 'GEOS 240', 'FELD 210', 'ETHI 310', 'HYDR 105'],
  ['GEOS 230', 'GEOS 260', 'GEOS 290', 'ETHI 210', 'SOIL 110', 'HERI 105']
]
/** What is dropped on each of the terms, and what is chosen for it. */
const NEEDS = [
  'All of four foundations: GEOS 101, GEOS 110',
  'Field methods and instruments: FELD 101',
  'Writing I: WRIT 101',
  '6 credits of your choice: ETHI 101',
  'A course in number: MATH 110',
  'All of four foundations: GEOS 120',
  'Field methods and instruments: FELD 120',
  '8 credits of field or ground: FELD 230',
  '6 credits of your choice: CSCI 101',
  'A course in speaking: SPCH 101',
  'All of four foundations: GEOS 210',
  '12 more credits of geospatial work: GEOS 240',
  '8 credits of field or ground: FELD 210, SOIL 110',
  '3 more credits of ethics or heritage law: ETHI 310',
  '12 more credits of geospatial work: GEOS 230, GEOS 260, GEOS 290',
  'A course that goes among people: ETHI 210',
  '6 credits on people and places: HYDR 105, HERI 105'
]
const TERMS = ['Autumn 27', 'Spring 28', 'Autumn 28', 'Spring 29']

async function openRoute(page: Page) {
  const session = (await (await page.request.get('/api/session')).json()) as { student: number }
  await page.goto(`/students/${session.student}/route`)
  await expect(page.locator('.board')).toBeVisible()
}
const cell = (page: Page, course: string) => page.locator(`.board [data-course="${course}"]`)
const placed = (page: Page, n: number) =>
  expect(page.getByText(n === 1 ? '1 course placed' : `${n} courses placed`)).toBeVisible()

/** By the hand: pressed, moved in steps, let go. */
async function drag(page: Page, what: Locator, onto: Locator) {
  // In the middle: what is at the edge may be under the band at the top.
  await what.evaluate((element) => element.scrollIntoView({ block: 'center' }))
  const middle = async (of: Locator) => {
    const { x, y, width, height } = (await of.boundingBox())!
    return [x + width / 2, y + height / 2] as const
  }
  const [from, to] = [await middle(what), await middle(onto)]
  await page.mouse.move(...from)
  await page.mouse.down()
  await page.mouse.move(...to, { steps: 5 })
  await page.mouse.up()
}
async function expectComplete(page: Page) {
  await expect(page.locator('.board thead th').last()).toContainText('0 cr needed')
  await expect(page.getByRole('heading', { name: 'No findings' })).toBeVisible()
  await expect(page.locator('.page-head')).toContainText('finish Spring 29')
}

test('an empty two-year program is planned to complete with the keyboard alone @long', async ({ site }) => {
  const page = await enter(site, NAME)
  await openRoute(page)
  await expect(page.getByText('Nothing is placed yet.')).toBeVisible()
  let n = 0
  for (const code of COURSES.flat()) {
    await page.keyboard.press('/')
    await page.keyboard.type(code)
    await expect(page.getByRole('option', { selected: true })).toContainText(code)
    await page.keyboard.press('Shift+Enter')
    await placed(page, ++n)
    await page.keyboard.press('Escape')
  }
  await expectComplete(page)
  // A course goes into another term by keys, and back.
  await cell(page, 'SPCH 101').focus()
  for (const key of ['Space', 'ArrowRight', 'Space']) await page.keyboard.press(key)
  await expect(page.getByText('Move SPCH 101 to Autumn 28: done.')).toBeVisible()
  await expect(cell(page, 'SPCH 101')).toBeFocused()
  await page.keyboard.press('Control+z')
  await expect(page.getByText('Move SPCH 101 to Autumn 28: taken back.')).toBeVisible()
  await expectComplete(page)
  await leave(page)
})

test('the same by dragging what is needed onto a term, and choosing @long', async ({ site }) => {
  const page = await enter(site, NAME)
  await openRoute(page)
  await page.getByRole('button', { name: 'Routes', exact: true }).click()
  await page.getByLabel('New route').fill('By hand')
  await page.getByRole('button', { name: 'Empty' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Route “By hand”')
  await page.getByRole('region', { name: 'Routes' }).getByRole('button', { name: 'Close' }).click()
  const dialog = page.getByRole('dialog')
  const heads = (await page.locator('.board thead .display').allTextContents()).map((text) => text.trim())
  let n = 0
  for (const line of NEEDS) {
    const [title, codes] = line.split(': ')
    for (const code of codes!.split(', ')) {
      const term = TERMS[COURSES.findIndex((courses) => courses.includes(code))]!
      const need = page.getByRole('button', { name: new RegExp(`^${title} \\d`) })
      const row = page.locator('.board tr', { has: need })
      await drag(page, need, row.locator('td').nth(heads.indexOf(term)))
      await expect(dialog.getByRole('heading', { name: title! })).toBeVisible()
      const add = dialog.getByRole('button', { name: new RegExp(`^Add ${code} to`) })
      const all = dialog.getByRole('button', { name: /^Show all/ })
      await expect(add.or(all).first()).toBeVisible()
      if (!(await add.count())) await all.click()
      await add.click()
      await placed(page, ++n)
      // It stays for the next course, as long as the need asks for one.
      await dialog.getByRole('button', { name: 'Close' }).click()
      await expect(page.locator('.v-overlay__scrim')).toHaveCount(0)
    }
  }
  await expectComplete(page)
  await leave(page)
})

test('what a program suggests is proposed from where the student stands, and its open places chosen @long', async ({
  site
}) => {
  const page = await enter(site, 'imke.varga')
  await openRoute(page)
  await page.getByRole('button', { name: 'Fill the rest' }).click()
  await page.getByRole('button', { name: 'Start from the sequence of BSc Env. Data' }).click()
  await expect(page.getByText(/^What BSc Env. Data suggests from its term 5 on: 3 courses/)).toBeVisible()
  await choose(page, 'A course for A course in speaking in Autumn 2028', 'SPCH 101 Speaking in Public')
  await expect(page.locator('.course.proposed')).toHaveCount(4)
  await page.getByRole('button', { name: 'Take all 4 courses' }).click()
  await expect(cell(page, 'SPCH 101')).toBeVisible()
  await page.getByRole('button', { name: /^Undo: 4 changes at once/ }).click()
  await expect(cell(page, 'SPCH 101')).toHaveCount(0)
  await leave(page)
})
