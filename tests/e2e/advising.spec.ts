/** What stands around a review: what programs ask for, sections that are suggested, what is meant for a term, who reads. */
import type { Page } from '@playwright/test'
import { clean, settled, wellMade } from './axe'
import { choose, enter, expect, leave, PHONE, test } from './site'

test.use({ scenario: 'advising' })

const open = async (page: Page, path: string) => {
  await page.goto(path)
  await settled(page)
}
const course = (page: Page, code: string) =>
  page.locator('section.course', { has: page.locator('header', { hasText: code }) })
const option = (page: Page, name: string) =>
  page.locator('article.option', { has: page.getByText(name, { exact: true }) })
const review = (page: Page) => page.getByRole('region', { name: /^Review of/ })

test('what is pointed at on Week does not move @long', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await open(page, '/students/1/week')
  for (const name of ['ENDA 310-02', 'ENDA 325-05', 'SOIL 220-02']) {
    const card = option(page, name)
    await card.scrollIntoViewIfNeeded()
    await page.mouse.move(0, 0)
    const before = (await card.boundingBox())!
    await page.mouse.move(before.x + before.width / 2, before.y + 60)
    await expect(page.locator('.ribbon .bar.preview').first()).toBeVisible()
    expect(await card.boundingBox(), name).toEqual(before)
  }
  await leave(page)
})

test('sections are suggested where they are picked, and picked when they are accepted @long', async ({
  site
}) => {
  const imke = await enter(site, 'imke.varga')
  const orla = await enter(site, 'orla.denholt')
  await open(imke, '/students/1/week')
  await open(orla, '/students/1/week')
  await option(orla, 'ENDA 325-05').locator('.body').click()
  await orla.getByText('Suggested for ENDA 325.').hover()
  const mine = course(imke, 'ENDA 325').getByRole('article', {
    name: /^Suggestion \d+: ENDA 325, section 05$/
  })
  await expect(mine).toContainText('Orla Denholt')
  await expect(option(imke, 'ENDA 325-05').locator('.body')).toHaveAttribute('aria-pressed', 'false')
  await clean(imke, 'a week with suggested sections')
  await wellMade(orla, 'a week as its advisor sees it')
  await mine.getByRole('button', { name: /^Accept/ }).click()
  await expect(option(imke, 'ENDA 325-05').locator('.body')).toHaveAttribute('aria-pressed', 'true')
  await expect(mine).toHaveCount(0)
  await expect(option(orla, 'ENDA 325-05').locator('.body')).toHaveAttribute('aria-pressed', 'true')
  const back = orla.getByRole('button', { name: 'Take it back', exact: true })
  await expect(back, 'what is answered').toHaveCount(0)

  await option(orla, 'MATH 231-01').locator('.body').click()
  await back.click()
  await expect(course(imke, 'MATH 231').getByRole('article', { name: /^Suggestion/ })).toHaveCount(0)
  await open(imke, '/students/1/route')
  await expect(
    imke.getByRole('region', { name: 'The talk' }).getByRole('article', { name: /ENDA 325, section 05/ })
  ).toContainText('accepted')
  await leave(imke)
  await leave(orla)
})

test('a program has its review asked for with its question answered and the whole way planned', async ({
  site
}) => {
  const page = await enter(site, 'felix.abara', PHONE)
  await open(page, '/students/16/route')
  await review(page).getByRole('button', { name: 'Ask for review' }).click()
  await expect(review(page)).toContainText('Without a place on the route yet: 82 credits.')
  const question = review(page).getByRole('textbox', { name: 'Which sites will you work on' })
  await question.fill('The old mill.')
  await expect(review(page).getByRole('button', { name: 'Ask for it' })).toBeDisabled()
  await clean(page, 'asking for a review that is not ready')
  const asked = await page.request.post('/api/students/16/review', { data: { term: 'AU27' } })
  expect(asked.status()).toBe(422)
  expect(await asked.json()).toMatchObject({ code: 'unanswered', fields: [{ field: 'answers' }] })
  await leave(page)
})

test('what a term is signed off for may be taken in another way, and is compared with what is picked', async ({
  site
}) => {
  const orla = await enter(site, 'orla.denholt')
  await open(orla, '/students/1/route')
  const row = (code: string) => review(orla).getByRole('row', { name: new RegExp(`^${code}`) })
  await expect(row('ENDA 310')).toContainText('01')
  const others = review(orla).getByRole('combobox', { name: 'in place of one also' })
  await others.fill('ECON 210')
  await orla.getByRole('option', { name: /^ECON 210/ }).click()
  await orla.keyboard.press('Escape')
  await review(orla).getByRole('button', { name: 'Sign off Autumn 2027' }).click()
  await expect(review(orla)).toContainText('in place of one also ECON 210')
  await expect(row('ENDA 310')).toContainText('yes')
  await wellMade(orla, 'a signed-off term compared')
  await review(orla).getByRole('button', { name: 'Withdraw sign-off' }).click()
  await expect(review(orla)).not.toContainText('Signed off by')
  await leave(orla)
})

test('what is meant for a term is handed in, and those who plan it see how much is wanted @long', async ({
  site
}) => {
  const mira = await enter(site, 'mira.sandoval')
  const edda = await enter(site, 'edda.whitlock')
  const wanted = async () => {
    await open(edda, '/demand')
    await edda.getByRole('button', { name: 'Spring 2028' }).click()
    const row = edda.getByRole('row', { name: /^STAT 330/ })
    await expect(row).toBeVisible()
    return Number(await row.getByRole('cell').nth(3).innerText())
  }
  const before = await wanted()
  await open(mira, '/students/12/route')
  const meant = mira.getByRole('region', { name: /^Meant for Spring 2028/ })
  await meant.getByRole('button', { name: /^Hand in/ }).click()
  await expect(meant).toContainText('sections are not published yet')
  await clean(mira, 'a route with what is meant for a term')
  expect(await wanted()).toBe(before + 1)
  await clean(edda, 'demand')
  await meant.getByRole('button', { name: 'take it back' }).click()
  await expect(meant).not.toContainText('handed in')
  expect(await wanted()).toBe(before)
  const tamsin = await enter(site, 'tamsin.orford', PHONE)
  await open(tamsin, '/demand')
  await expect(tamsin.getByRole('row', { name: /^ENDA 410/ })).toBeVisible()
  await expect(tamsin.getByRole('row', { name: /^LANG 140/ })).toHaveCount(0)
  await wellMade(tamsin, 'demand of a department on a phone')
  for (const page of [mira, edda, tamsin]) await leave(page)
})

test('a remark about a finding names who is to read it; the desk is narrowed and the view kept @long', async ({
  site
}) => {
  const imke = await enter(site, 'imke.varga')
  const nell = await enter(site, 'nell.fairweather')
  await open(imke, '/students/1/route')
  await imke.getByRole('button', { name: 'Speak of it' }).first().click()
  await imke.getByRole('textbox', { name: /^What you want to say/ }).fill('How is this settled?')
  const readers = imke.getByRole('combobox', { name: 'to be read by' })
  await readers.press('ArrowDown')
  await imke.getByRole('option', { name: 'Nell Fairweather' }).click()
  await readers.press('Tab')
  await imke.getByRole('button', { name: 'Say it' }).click()
  await expect(imke.getByRole('article', { name: /^About the finding/ })).toContainText(
    'for Nell Fairweather'
  )
  await open(nell, '/students/1/route')
  await expect(nell.getByRole('article', { name: /^About the finding/ })).toContainText('for you')

  const orla = await enter(site, 'orla.denholt')
  await open(orla, '/desk')
  const rows = orla.getByRole('row')
  const all = await rows.count()
  await choose(orla, 'standing', 'second year')
  await orla.getByRole('button', { name: 'Keep this view' }).click()
  await orla.getByRole('textbox', { name: 'a name for this view' }).fill('First ones')
  await orla.getByRole('button', { name: 'Keep it' }).click()
  await expect(orla.getByRole('button', { name: 'First ones', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true'
  )
  const some = await rows.count()
  expect(some).toBeLessThan(all)
  await wellMade(orla, 'a desk with a view that is kept')
  await open(orla, '/desk')
  await orla.getByRole('button', { name: 'First ones', exact: true }).click()
  await expect(rows).toHaveCount(some)
  await orla.getByRole('button', { name: 'Let “First ones” go' }).click()
  await expect(orla.getByRole('button', { name: 'First ones', exact: true })).toHaveCount(0)
  for (const page of [imke, nell, orla]) await leave(page)
})
