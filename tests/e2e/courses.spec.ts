import type { Page } from '@playwright/test'
import { clean, settled } from './axe'
import { enter, expect, go, leave, PHONE, scenarioOfReading, test } from './site'

test.use({ scenario: scenarioOfReading('courses') })

const found = (page: Page) => page.locator('.found strong')
const line = (page: Page, code: string) =>
  page.locator('.line', { has: page.getByText(code, { exact: true }) })
const question = (page: Page) => page.getByRole('searchbox')

test('courses are found by what is asked, and each filter says what it hides', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await page.goto('/students/1/courses')
  await expect(found(page)).toHaveText('157 courses')
  await page.getByRole('button', { name: /^Statistics/ }).click()
  await expect(found(page)).toHaveText('8 courses')
  await expect(page).toHaveURL(/subjects=STAT/)
  await page.getByRole('button', { name: 'runs in Autumn 27' }).click()
  await expect(page.locator('.filter', { hasText: 'runs in Autumn 27' })).toContainText('hides 4')
  await expect(found(page)).toHaveText('4 courses')
  await page.getByRole('button', { name: 'I can take it then', exact: true }).click()
  await expect(line(page, 'STAT 110')).toHaveCount(0)
  await page.reload()
  await expect(page.getByRole('button', { name: 'I can take it then', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true'
  )
  await page.getByRole('button', { name: 'Drop: I can take it then' }).click()
  await expect(line(page, 'STAT 110')).toContainText('earned with B')
  await expect(line(page, 'STAT 340')).toContainText('It needs MATH 231 before it.')

  // Nothing left: the one filter whose removal helps most is named.
  await page.getByRole('button', { name: 'year', exact: true }).click()
  await page.getByRole('checkbox', { name: 'graduate' }).check()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Ask without it' }).click()
  await expect(found(page)).not.toHaveText('0 courses')
  await leave(page)
})

test('words are found in topics, instructors and descriptions, with a slip; several at once @long', async ({
  site
}) => {
  const page = await enter(site, 'imke.varga')
  await page.goto('/students/1/courses')
  await expect(found(page)).toHaveText('157 courses')
  await question(page).fill('drowned vilages')
  await expect(line(page, 'HERI 210')).toBeVisible()
  await question(page).fill('impact statements')
  await expect(line(page, 'ENVI 310')).toBeVisible()
  await question(page).fill('SOIL 220, STAT 330')
  await expect(page.locator('.line strong').first()).toHaveText('SOIL 220')
  await expect(line(page, 'STAT 330')).toContainText('statistics at 300 or above')
  await leave(page)
})

test('a course has a page: grounds, history, sections, a note and a star of my own', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await page.goto('/students/1/courses?q=soil220')
  await line(page, 'SOIL 220')
    .getByRole('button', { name: /^SOIL 220/ })
    .click()
  await page.getByRole('link', { name: 'Open as a page' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'SOIL 220 Soil Process' })).toBeVisible()
  await expect(page.getByText(/Next offered in Autumn 2027: its sections are published/)).toBeVisible()
  await expect(page.getByRole('list', { name: 'The last 6 terms' }).getByRole('listitem')).toHaveCount(6)
  await expect(page.getByRole('cell', { name: /^Thu 2:45–5:15 · Boathouse 2/ })).toBeVisible()
  await page.getByRole('textbox', { name: 'Note of mine' }).fill('the Friday lab')
  await page.getByRole('button', { name: 'Keep the note' }).click()
  await page.getByRole('button', { name: 'Star it' }).click()
  await expect(page.getByRole('button', { name: 'Starred' })).toBeVisible()
  await expect.poll(async () => (await site.query('select * from note')).length).toBe(1)
  await page.goto('/students/1/courses')
  await expect(page.locator('.kept', { hasText: 'Starred' })).toContainText('SOIL 220')
  await expect(page.locator('.kept', { hasText: 'Looked at last' })).toContainText('SOIL 220')
  await page.getByRole('button', { name: 'SOIL 220' }).first().click()
  await expect(page.getByRole('textbox', { name: 'Note of mine' })).toHaveValue('the Friday lab')
  await leave(page)
})

test('from the slash to a placed course without the mouse, and several at once @long', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  const planned = async () =>
    (await site.query<{ n: number }>('select count(*) as n from planned_course where route_id = 1'))[0]!.n
  const before = await planned()
  await page.goto('/students/1/today')
  await settled(page)
  // The slash, the code, and one more key.
  await page.keyboard.press('/')
  await page.keyboard.type('musi101')
  await expect(page.getByText(/Shift\+Enter puts MUSI 101 into/)).toBeVisible()
  await page.keyboard.press('Shift+Enter')
  await expect.poll(planned).toBe(before + 1)

  await page.keyboard.press('Escape')
  await page.locator('body').click({ position: { x: 4, y: 400 } })
  await page.keyboard.press('/')
  await page.keyboard.type('ARTS')
  await page.keyboard.press('ArrowUp')
  await expect(page.getByRole('option', { name: 'Everything that fits, with filters' })).toBeVisible()
  await page.getByRole('option', { name: 'Everything that fits, with filters' }).click()
  await expect(question(page)).toHaveValue('ARTS')
  await page.getByRole('checkbox', { name: 'Choose ARTS 110' }).check()
  await page.getByRole('checkbox', { name: 'Choose ARTS 210' }).check()
  await page.getByRole('button', { name: 'Put on the route' }).click()
  await expect(page.getByText(/2 changes at once/)).toBeVisible()
  await expect.poll(planned).toBe(before + 3)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(planned).toBe(before + 1)

  await question(page).focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('s')
  await expect(page.locator('.star[aria-pressed="true"]')).toHaveCount(1)
  await page.keyboard.press('Shift+Enter')
  await expect.poll(planned).toBe(before + 2)
  await leave(page)
})

test('the pages of the catalog are clean @long', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  for (const path of ['courses', 'courses?subjects=STAT~HERI&runs=yes&takable=yes', 'courses/SOIL-220']) {
    await go(page, `/students/1/${path}`)
    await settled(page)
    await clean(page, path)
  }
  await leave(page)
})

test('the catalog works on a phone and for the staff @long', async ({ site }) => {
  const phone = await enter(site, 'imke.varga', PHONE)
  for (const path of ['courses', 'courses?q=stat', 'courses/SOIL-220']) {
    await go(phone, `/students/1/${path}`)
    await settled(phone)
    expect(await phone.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(
      0
    )
  }
  await leave(phone)
  const page = await enter(site, 'edda.whitlock')
  await page.goto('/courses?q=soil')
  await page.getByRole('button', { name: /^SOIL 220/ }).click()
  const panel = page.getByRole('complementary', { name: 'Course SOIL 220' })
  await expect(panel.getByText('Tue Thu 1:00–2:15')).toBeVisible()
  await expect(panel.getByRole('button', { name: 'Put on the route' })).toHaveCount(0)
  await panel.getByRole('link', { name: 'Open as a page' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'SOIL 220 Soil Process' })).toBeVisible()
  await page.goto('/courses/nonsense')
  await expect(page.getByText('“nonsense” is not a course code.')).toBeVisible()
  await leave(page)
})
