import type { Page } from '@playwright/test'
import { clean, settled } from './axe'
import { choose, enter, expect, leave, test, visit, type DemoSite } from './site'

test.use({ scenario: 'week' })

const BASE = '/students/1/week'
const open = async (page: Page, path = '') => {
  await page.goto(`${BASE}${path}`)
  await settled(page)
}
const bars = (page: Page) => page.locator('.ribbon .bar')
const row = (page: Page, day: string) => page.locator('.ribbon .row', { hasText: day })
const course = (page: Page, code: string) =>
  page.locator('section.course', { has: page.locator('header', { hasText: code }) })
const draft = (page: Page, name: string) => page.locator('.draft', { hasText: name })
const state = (page: Page) => page.getByRole('link', { name: /^Week/ })

/** A draft of its own for a test, gone with, and taken away at its end. */
async function inDraft(site: DemoSite, name: string, work: (page: Page) => Promise<void>) {
  const page = await enter(site, 'imke.varga')
  const data = { term: 'AU27', name, sections: [], goingWith: true }
  expect((await page.request.post('/api/students/1/weeks', { data })).ok()).toBe(true)
  await work(page)
  await leave(page)
}

test('from five planned courses to a chosen week in four clicks', async ({ site }) => {
  await inDraft(site, 'By clicks', async (page) => {
    let clicks = 0
    await page.goto('/students/1/today')
    await expect(state(page)).toContainText('0 of 5 settled')
    const click = async (what: ReturnType<Page['locator']>) => {
      clicks++
      await what.click()
    }
    await click(state(page))
    await click(page.getByRole('link', { name: 'Find weeks' }))
    await expect(page.getByText('24 of 180 combinations fit · best 24 proved')).toBeVisible()
    await click(page.getByRole('button', { name: /^Week 2:/ }))
    await click(page.getByRole('button', { name: 'Make week 2 a draft' }))
    await expect(draft(page, 'Found 2')).toContainText('going with this one')
    await expect(state(page)).toContainText('5 of 5 settled')
    expect(clicks).toBeLessThanOrEqual(12)
  })
})

test('the same by keyboard alone @long', async ({ site }) => {
  await inDraft(site, 'By keys', async (page) => {
    await page.goto('/students/1/today')
    await settled(page)
    await page.keyboard.press('g')
    await page.keyboard.press('w')
    await expect(page.getByRole('heading', { name: 'Autumn 2027' })).toBeVisible()
    const tabTo = async (name: RegExp, back = false) => {
      for (let n = 0; n < 120; n++) {
        await page.keyboard.press(back ? 'Shift+Tab' : 'Tab')
        const focused = await page.evaluate(() => {
          const { activeElement } = document
          return activeElement?.getAttribute('aria-label') ?? activeElement?.textContent?.trim() ?? ''
        })
        if (name.test(focused)) return
      }
      throw new Error(`no way to ${name} by Tab`)
    }
    await tabTo(/^Find weeks/)
    await page.keyboard.press('Enter')
    await expect(page.getByText('24 of 180 combinations fit')).toBeVisible()
    // The third wish is put first, which ranks anew.
    await tabTo(/^Wish 3: Few hours between/)
    await page.keyboard.press('ArrowUp')
    await page.keyboard.press('ArrowUp')
    await expect(page.getByRole('button', { name: /^Wish 1: Few hours between/ })).toBeFocused()
    await expect(page.getByRole('button', { name: /^Week 1: 5 days.* 2 h 30 between/ })).toBeVisible()
    await tabTo(/^Week 1:/)
    await page.keyboard.press('ArrowRight')
    await page.keyboard.press('Enter')
    await tabTo(/^Make week 2 a draft$/, true)
    await page.keyboard.press('Enter')
    await expect(state(page)).toContainText('5 of 5 settled')
    await tabTo(/^ENDA 310-01[\s\d]/)
    await page.keyboard.press('ArrowRight')
    await expect(page.getByText('ENDA 310?').first()).toBeVisible()
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('Enter')
  })
})

test('a clash is named with its dates and repaired in one step, which can be taken back', async ({
  site
}) => {
  const page = await enter(site, 'imke.varga')
  await page.request.post(`/api/students/1/weeks/1`, { data: { goingWith: true } })
  await open(page)
  const other = course(page, 'ENDA 325').locator('.option', { hasText: 'F7WK7' })
  await expect(other).toContainText('clashes with SOIL 220 lab Thu 3:50 pm, 15 dates')
  await other.getByRole('button', { name: 'take it: moves SOIL 220 to lab 01B' }).click()
  await expect(row(page, 'Fri')).toContainText('SOIL 220 lab')
  await expect(row(page, 'Thu')).toContainText('ENDA 325')
  await expect(state(page)).toContainText('5 of 5 settled')
  await page.getByRole('button', { name: 'Undo' }).click()
  // What the pointer happens to stand on would be previewed.
  await page.mouse.move(0, 0)
  await expect(row(page, 'Thu')).toContainText('SOIL 220 lab')
  await expect(state(page)).toContainText('4 of 5 settled')
  await page.reload()
  await expect(row(page, 'Thu')).toContainText('SOIL 220 lab')
})

test('a lab is exchanged for another of the same lecture', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await page.request.post(`/api/students/1/weeks/1`, { data: { goingWith: true } })
  await open(page)
  const soil = course(page, 'SOIL 220').locator('.option')
  await soil
    .nth(1)
    .getByRole('button', { name: /^SOIL 220-01/ })
    .click()
  await expect(row(page, 'Fri')).toContainText('SOIL 220 lab')
  await expect(row(page, 'Thu').locator('.bar', { hasText: 'lab' })).toHaveCount(0)
  await page.reload()
  await expect(row(page, 'Fri')).toContainText('SOIL 220 lab')
  await course(page, 'SOIL 220')
    .locator('.option', { hasText: 'Boathouse' })
    .getByRole('button', { name: /^SOIL 220-01/ })
    .click()
  await expect(row(page, 'Thu')).toContainText('SOIL 220 lab')
})

test('keep-free hours are painted, named, hold options out and are let go @long', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await open(page)
  await page.getByRole('button', { name: 'Keep-free hours' }).click()
  const lane = (await row(page, 'Tue').locator('.lane').boundingBox())!
  const below = (await row(page, 'Thu').locator('.lane').boundingBox())!
  await page.mouse.move(lane.x + lane.width * 0.02, lane.y + 10)
  await page.mouse.down()
  await page.mouse.move(lane.x + lane.width * 0.08, below.y + 10, { steps: 4 })
  await page.mouse.up()
  const panel = page.getByRole('region', { name: 'Keep-free hours' })
  for (const day of ['Tue', 'Wed', 'Thu']) await expect(panel.getByLabel(day, { exact: true })).toBeChecked()
  await page.keyboard.type('Rowing')
  await page.keyboard.press('Enter')
  await expect(panel.locator('li', { hasText: 'Rowing' })).toContainText('holds out 1 option')
  await expect(course(page, 'MATH 231').locator('.option', { hasText: 'FFFHH' })).toContainText('in Rowing')
  await clean(page, 'keep-free hours')
  await page.reload()
  await expect(page.locator('.kept', { hasText: 'Rowing' })).toHaveCount(3)
  await page.getByRole('button', { name: 'Keep-free hours' }).click()
  await panel.getByRole('button', { name: 'Let go of Rowing' }).click()
  await expect(page.locator('.kept', { hasText: 'Rowing' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.locator('.kept', { hasText: 'Rowing' })).toHaveCount(3)
  await panel.getByRole('button', { name: 'Let go of Rowing' }).click()
})

test('where no week fits, what cannot hold together is said, and relaxed from there @long', async ({
  site
}) => {
  const page = await enter(site, 'imke.varga')
  const hours = [{ name: 'Mornings', days: [1, 2, 3, 4, 5], start: 480, end: 765, hard: true }]
  expect((await page.request.post('/api/students/1/keep-free', { data: { hours } })).ok()).toBe(true)
  await open(page, '/find')
  await expect(
    page.getByText('No week fits: ENDA 310 and free time Mornings cannot hold together.')
  ).toBeVisible()
  await expect(page.getByText(/^0 of 180 combinations fit/)).toBeVisible()
  const openers = page.getByRole('region', { name: 'What would open more weeks' })
  await expect(openers.getByRole('listitem').first()).toContainText('+72')
  await clean(page, 'no week fits')
  // Shown at once, and saved a moment later: what is written below comes after it.
  const saved = page.waitForResponse((answer) => answer.url().endsWith('/keep-free') && answer.ok())
  await openers.getByRole('button', { name: 'Let go of Mornings' }).click()
  await saved
  await expect(page.getByText('72 of 180 combinations fit · best 50 proved')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Week 1:/ })).toBeVisible()

  // Where no single change is enough, what is in conflict is let go one by one.
  const two = [...hours, { name: 'Afternoons', days: [2, 4], start: 765, end: 1200, hard: true }]
  expect((await page.request.post('/api/students/1/keep-free', { data: { hours: two } })).ok()).toBe(true)
  await open(page, '/find')
  await expect(page.getByText('Letting go of one thing alone is not enough.')).toBeVisible()
  await page.getByRole('button', { name: 'Let go of Mornings' }).click()
  await expect(page.getByText(/^No week fits: .*Afternoons.* cannot hold together/)).toBeVisible()
  await page.getByRole('button', { name: 'Let go of Afternoons' }).click()
  await expect(page.getByText('72 of 180 combinations fit · best 50 proved')).toBeVisible()
})

test('wishes are dragged into order, and the gallery and the picture point at each other @long', async ({
  site
}) => {
  const page = await enter(site, 'imke.varga')
  const data = { wishes: [{ kind: 'fewestDays' }, { kind: 'fewestHoursBetween' }], travelHolds: false }
  expect((await page.request.post('/api/students/1/week-habits', { data })).ok()).toBe(true)
  await page.request.post('/api/students/1/keep-free', { data: { hours: [] } })
  await open(page, '/find')
  const wish = (n: number) => page.locator('[data-place]').nth(n)
  await expect(page.getByRole('button', { name: /^Week 1:/ })).toBeVisible()
  const [from, to] = [(await wish(1).boundingBox())!, (await wish(0).boundingBox())!]
  await page.mouse.move(from.x + 60, from.y + 12)
  await page.mouse.down()
  await page.mouse.move(to.x + 60, to.y + 12, { steps: 6 })
  await page.mouse.up()
  await expect(wish(0)).toContainText('Few hours between')
  await page.reload()
  await expect(wish(0)).toContainText('Few hours between')
  await page.getByRole('button', { name: /^Week 3:/ }).hover()
  await expect(page.getByRole('img', { name: 'hours between classes against' })).toContainText('week 3')

  // A friend's week from their codes: two sections of these courses, one of none.
  await choose(page, 'Add a wish', 'Together with a friend')
  const codes = await site.query<{ code: string }>(
    `select s.code from section s join course c on c.id = s.course_id join term t on t.id = s.term_id
     where t.code = 'AU27' and concat(c.code, s.number) in ('MATH 23102', 'ENDA 31002', 'ARTS 12001') order by s.code`
  )
  await page
    .getByLabel("Link of a friend's week, or its section codes")
    .fill(codes.map((c) => c.code).join(' '))
  await page.getByRole('button', { name: 'Read it' }).click()
  await expect(page.getByText('2 sections of your courses')).toBeVisible()
  await page.getByRole('button', { name: /^Wish 3: .*friend/ }).press('ArrowUp')
  await page.getByRole('button', { name: /^Wish 2: .*friend/ }).press('ArrowUp')
  await expect(page.getByRole('button', { name: /^Week 1: .*ENDA 310-02.*MATH 231-02/ })).toBeVisible()
  await choose(page, 'What to do with WRIT 215', 'one to choose from')
  await choose(page, 'What to do with MATH 231', 'one to choose from')
  await expect(page.getByText('of MATH 231, WRIT 215')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Week 1: / })).toBeVisible()
})

test('two halves of the term stand in one slot without a clash @long', async ({ site }) => {
  await inDraft(site, 'Halves', async (page) => {
    for (const [words, name] of [
      ['ARTS 120', 'Pick ARTS 120-01'],
      ['WRIT 215', 'Pick WRIT 215-02']
    ] as const) {
      await open(page, `/sections?q=${words}`)
      await page.getByRole('button', { name }).click()
      await expect(page.getByText(/is in “Halves”/)).toBeVisible()
    }
    await open(page)
    const tuesday = row(page, 'Tue').locator('.bar')
    await expect(tuesday).toHaveCount(2)
    const [upper, lower] = [(await tuesday.nth(0).boundingBox())!, (await tuesday.nth(1).boundingBox())!]
    expect(upper.y + upper.height).toBeLessThanOrEqual(lower.y)
    await expect(bars(page).locator('.clash')).toHaveCount(0)
    await expect(course(page, 'ARTS 120')).toContainText('not on the route')
    await page.getByRole('button', { name: 'Real weeks' }).click()
    await expect(row(page, 'Tue').locator('.bar')).toHaveText(/ARTS 120/)
    await choose(page, 'Week', 'Week 9, from 25 Oct')
    await expect(row(page, 'Tue').locator('.bar')).toHaveText(/WRIT 215/)
    await choose(page, 'Week', 'Week 13, from 22 Nov')
    await expect(row(page, 'Thu')).toContainText('Thanksgiving recess')
  })
})

test('draft weeks are made, named, compared and gone with; Register follows @long', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await page.request.post(`/api/students/1/weeks/1`, { data: { goingWith: true } })
  await open(page)
  await page.getByRole('button', { name: 'What to do with Fridays off' }).click()
  await page.getByText('Copy', { exact: true }).click()
  await expect(draft(page, 'Fridays off, changed')).toHaveClass(/on/)
  await page.getByRole('button', { name: 'What to do with Fridays off, changed' }).click()
  await page.getByText('Rename', { exact: true }).click()
  await page.getByLabel('Name of the draft week').fill('Mondays off')
  await page.keyboard.press('Enter')
  await course(page, 'ENDA 310')
    .getByRole('button', { name: /^ENDA 310-01/ })
    .click()
  await expect(course(page, 'ENDA 310')).toContainText('no section yet')
  await page.getByRole('button', { name: 'Drafts side by side' }).click()
  const column = page.getByRole('region', { name: 'Mondays off' })
  await expect(column).toContainText('ENDA 310: no section')
  await clean(page, 'drafts side by side')
  await column.getByRole('button', { name: 'Go with this one' }).click()
  await expect(column).toContainText('going with this one')
  await page.goto('/students/1/register')
  await expect(page.getByRole('row', { name: /ENDA 310/ })).toContainText('unsettled')
  await page.request.post(`/api/students/1/weeks/1`, { data: { goingWith: true } })
})

test('a draft is shared by a link that shows the week only, and withdrawn; so is the calendar address @long', async ({
  site
}) => {
  const page = await enter(site, 'imke.varga')
  await page.request.post(`/api/students/1/weeks/1`, { data: { goingWith: true } })
  await open(page)
  await page.getByRole('button', { name: 'Save or share' }).click()
  await page.getByRole('button', { name: 'Share this draft' }).click()
  const link = await page.getByLabel('Link', { exact: true }).inputValue()
  const stranger = await visit(site)
  await stranger.goto(link)
  await expect(stranger.getByRole('heading', { name: 'Fridays off · Autumn 2027' })).toBeVisible()
  await expect(stranger.getByText('SOIL 220').first()).toBeVisible()
  expect(await stranger.content()).not.toContain('Imke')
  await clean(stranger, 'a shared week')
  await page.getByRole('button', { name: 'Withdraw it' }).click()
  await expect(page.getByText('The link leads nowhere any more.')).toBeVisible()
  await stranger.reload()
  await expect(stranger.getByText('This week is not shared, or not any more.')).toBeVisible()

  await page.getByRole('button', { name: 'Make one' }).click()
  const address = await page.getByLabel('Calendar address').inputValue()
  const calendar = await stranger.request.get(address)
  expect(calendar.headers()['content-type']).toContain('text/calendar')
  expect(await calendar.text()).toContain('SUMMARY:SOIL 220')
  await clean(page, 'take it along')
  await page.getByRole('button', { name: 'Withdraw', exact: true }).click()
  await expect(page.getByText('The calendar address leads nowhere any more.')).toBeVisible()
  expect((await stranger.request.get(address)).status()).toBe(404)
  await leave(stranger)

  const saved = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Calendar file' }).click()
  expect((await saved).suggestedFilename()).toBe('AU27-Fridays-off.ics')
})

test('sections are found by what is typed and asked; none found names the costliest filter @long', async ({
  site
}) => {
  const page = await enter(site, 'imke.varga')
  await open(page, '/sections')
  const found = page.getByRole('status').filter({ hasText: 'section' })
  const list = page.getByRole('list', { name: 'Sections found' })
  await page.getByRole('searchbox').fill('TR 9-12')
  await expect(list.getByRole('listitem').first()).toContainText('Tue Thu')
  await page.getByRole('searchbox').fill('WRIT 215-02')
  await expect(found.locator('strong')).toHaveText('1 section')
  await expect(page).toHaveURL(/q=WRIT/)
  await expect(page.getByRole('searchbox')).toHaveValue('WRIT 215-02')
  await page.getByRole('searchbox').fill('F5NAB')
  await expect(list).toContainText('ENDA 310-01')
  await page.getByRole('button', { name: /^ENDA 310-01/ }).click()
  const sheet = page.getByRole('complementary', { name: 'Section ENDA 310-01' })
  await expect(sheet).toContainText('Full term, 30 Aug to 17 Dec')
  await clean(page, 'about a section')
  await page.keyboard.press('Escape')
  await page.getByRole('searchbox').fill('ENDA 310')
  await page.getByRole('button', { name: 'no extra fee' }).click()
  await page.getByRole('button', { name: 'days' }).click()
  await page.getByLabel('Friday').check()
  await page.keyboard.press('Escape')
  await expect(page.getByText('No section of Autumn 2027 fits all of this.')).toContainText(
    'Without the days there would be 2.'
  )
  await page.getByRole('button', { name: 'Ask without it' }).click()
  await expect(found).toContainText('2 sections')
  await choose(page, 'Term', 'Autumn 2026')
  await expect(page.getByText('Autumn 2026 is over.')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Pick / })).toHaveCount(0)
})

test('a picked section that is cancelled is told on the week and on Today', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await page.request.post(`/api/students/1/weeks/1`, { data: { goingWith: true } })
  await site.query("update section set cancelled = 1 where code = 'FEPEQ'")
  await open(page)
  await expect(page.getByText('MATH 231-01 was cancelled.')).toBeVisible()
  await page.goto('/students/1/today')
  await expect(page.getByText('MATH 231-01 was cancelled')).toBeVisible()
  await site.query("update section set cancelled = 0 where code = 'FEPEQ'")
})
