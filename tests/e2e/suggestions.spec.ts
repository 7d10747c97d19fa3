import type { Page } from '@playwright/test'
import { clean, settled, wellMade } from './axe'
import { enter, expect, leave, PHONE, test } from './site'

test.use({ scenario: 'suggestions' })

const suggestion = (page: Page, title: string) =>
  page
    .getByRole('region', { name: 'The talk' })
    .getByRole('article', { name: new RegExp(`^Suggestion \\d+: ${title}$`) })
const placeOf = (page: Page, course: string, term: string) => page.locator(`[data-place="${course}@${term}"]`)
const ghostOf = (page: Page, course: string, term: string) => page.locator(`[data-ghost="${course}@${term}"]`)
async function openRoute(page: Page) {
  await page.goto('/students/1/route')
  await expect(page.locator('.board')).toBeVisible()
  await settled(page)
}

test('an advisor suggests with the tools of the board; the student accepts, declines, and moves on meanwhile @long', async ({
  site
}) => {
  const imke = await enter(site, 'imke.varga')
  const orla = await enter(site, 'orla.denholt')
  await openRoute(imke)
  await openRoute(orla)

  await test.step('suggestions are drawn for both, and the route stays as it is', async () => {
    await orla.keyboard.press('s')
    await expect(orla.getByText('You are suggesting.')).toBeVisible()
    const row = orla.locator('tr', { has: placeOf(orla, 'HERI 210', 'SP28') })
    await placeOf(orla, 'HERI 210', 'SP28').dragTo(row.locator('td').nth(5))
    await expect(orla.getByText('Suggested: Move HERI 210 to Autumn 28.')).toBeVisible()
    await orla.locator('[data-course="MUSI 102"]').click()
    await orla.getByRole('menuitem', { name: 'Take off the route' }).click()
    await orla.getByRole('button', { name: 'Add STAT 330 to Spring 28' }).click()
    await expect(ghostOf(imke, 'HERI 210', 'AU28')).toContainText('3 cr, moved')
    await expect(ghostOf(imke, 'STAT 330', 'SP28')).toContainText('4 cr, new')
    await expect(placeOf(imke, 'HERI 210', 'SP28')).toBeVisible()
    await expect(imke.getByText('3 suggestions wait.')).toBeVisible()
    await expect(imke.locator('.arrows > path')).toHaveCount(1)
    await clean(imke, 'a route with suggestions')
    await clean(orla, 'a route while suggesting')
  })

  await test.step('each says what it changes, on top of the ones before it', async () => {
    await expect(suggestion(imke, 'Move HERI 210 to Autumn 28')).toContainText(/Spring 28 13 cr.*10 cr/)
    await expect(suggestion(imke, 'Take MUSI 102 off the route')).toContainText(/Spring 28 10 cr.*8 cr/)
    await expect(suggestion(imke, 'Add STAT 330 to Spring 28')).toContainText(/Spring 28 8 cr.*12 cr/)
    await expect(suggestion(imke, 'Add STAT 330 to Spring 28')).toContainText(/findings 1.*0/)
  })

  await test.step('why it is suggested is on the other screen', async () => {
    await suggestion(orla, 'Take MUSI 102 off the route')
      .getByRole('button', { name: /^Say why/ })
      .click()
    await orla.getByRole('textbox', { name: 'why' }).fill('It makes room.')
    await orla.getByRole('button', { name: 'Keep' }).click()
    await expect(suggestion(imke, 'Take MUSI 102 off the route')).toContainText('It makes room.')
  })

  await test.step('accepted in its place on the board, with one step to undo', async () => {
    await ghostOf(imke, 'HERI 210', 'AU28')
      .getByRole('button', { name: /^Suggestion \d+/ })
      .click()
    await imke
      .getByRole('button', { name: /^Accept \d+: Move HERI 210/ })
      .last()
      .click()
    await expect(placeOf(imke, 'HERI 210', 'AU28')).toBeVisible()
    await expect(suggestion(orla, 'Move HERI 210 to Autumn 28')).toContainText('accepted')
    await expect(placeOf(orla, 'HERI 210', 'AU28')).toBeVisible()
    await expect(imke.getByRole('button', { name: 'Undo: Move HERI 210 to Autumn 28' })).toBeEnabled()
    await imke.keyboard.press('Escape')
  })

  await test.step('declined in a word, which the advisor reads', async () => {
    const one = suggestion(imke, 'Take MUSI 102 off the route')
    await one.getByRole('button', { name: /and say why$/ }).click()
    await one.getByRole('textbox').fill('The ensemble tours in May.')
    await one.getByRole('textbox').press('Enter')
    await expect(suggestion(orla, 'Take MUSI 102 off the route')).toContainText('The ensemble tours in May.')
    await expect(suggestion(orla, 'Take MUSI 102 off the route')).toContainText('declined')
    await expect(placeOf(imke, 'MUSI 102', 'SP28')).toBeVisible()
  })

  await test.step('what the student has placed elsewhere meanwhile is taken from there', async () => {
    const { route } = (await (await imke.request.get('/api/students/1')).json()) as {
      route: { id: number; version: number }
    }
    const planned = { course: 'STAT 330', term: 'AU28', credits: 4, note: null, locked: false }
    const change = { kind: 'add', planned }
    const data = { route: route.id, version: route.version, change }
    expect((await imke.request.post('/api/students/1/route', { data })).status()).toBe(200)
    const one = suggestion(imke, 'Add STAT 330 to Spring 28')
    await expect(one).toContainText('You have moved STAT 330 since it was suggested; it is taken from there.')
    await expect(suggestion(orla, 'Add STAT 330 to Spring 28')).toContainText('They have moved STAT 330')
    await one.getByRole('button', { name: /^Accept/ }).click()
    await expect(placeOf(imke, 'STAT 330', 'SP28')).toBeVisible()
    await expect(placeOf(imke, 'STAT 330', 'AU28')).toHaveCount(0)
  })
  await leave(imke)
  await leave(orla)
})

test('the rest is suggested term by term; all of it is declined at once, and Today told of it @long', async ({
  site
}) => {
  const nell = await enter(site, 'nell.fairweather')
  await openRoute(nell)
  await expect(nell.getByRole('button', { name: 'Fill the rest' })).toHaveCount(0)
  await nell.getByRole('button', { name: 'Suggest changes' }).click()
  await nell.locator('[data-course="MUSI 102"]').click()
  await nell.getByRole('menuitem', { name: 'Take off the route' }).click()
  await expect(nell.getByText('1 suggestion waits for Imke Varga')).toBeVisible()
  await nell.getByRole('button', { name: 'Fill the rest' }).click()
  await nell.getByRole('button', { name: /^Look for/ }).click()
  await nell.getByRole('button', { name: /^Suggest all \d+ courses$/ }).click({ timeout: 60_000 })
  await expect(nell.getByText(/\d+ suggestions wait for Imke Varga/)).toBeVisible()
  await leave(nell)

  const imke = await enter(site, 'imke.varga')
  await imke.goto('/students/1/today')
  await settled(imke)
  await expect(imke.getByText(/^Nell Fairweather suggests \d+ changes? to your route$/)).toBeVisible()
  await imke.setViewportSize(PHONE)
  await imke.goto('/students/1/route')
  await settled(imke)
  await wellMade(imke, 'suggestions on a phone')
  await imke.getByRole('button', { name: 'Decline all' }).click()
  await expect(imke.getByText(/\d+ suggestions declined\./)).toBeVisible()
  await expect(imke.getByRole('button', { name: 'Decline all' })).toHaveCount(0)
  await leave(imke)
})
