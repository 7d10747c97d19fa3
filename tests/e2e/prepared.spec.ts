import { settled } from './axe'
import { enter, expect, leave, OPENS, setClock, test } from './site'

test.use({ scenario: 'prepared' })

test('a sheet is put in order, kept over a reload, and runs by itself with another course as its fallback at the opening @long', async ({
  site
}) => {
  const page = await enter(site, 'imke.varga')
  await page.goto('/students/1/register')
  await settled(page)
  const lines = page.locator('.lines tbody tr')
  await expect(lines.nth(0)).toContainText('ENDA 310')
  await page.getByRole('button', { name: /^Line 1: ENDA 310/ }).press('ArrowDown')
  await expect(page.getByRole('button', { name: /^Line 2: ENDA 310/ })).toBeFocused()
  await page.getByRole('button', { name: /^Line 2: ENDA 310/ }).press('ArrowDown')
  await page.getByRole('checkbox', { name: 'Register WRIT 215' }).uncheck()
  await page.getByRole('button', { name: 'Add a fallback for MATH 231' }).click()
  await page.getByRole('listitem').filter({ hasText: 'MATH 240 02' }).click()
  await expect(lines.nth(0)).toContainText('MATH 240 02 · online')
  const arm = page.getByRole('button', { name: 'Run it for me at the opening' })
  await arm.focus()
  await arm.press('Enter')
  await expect(page.getByRole('button', { name: 'Do not run it for me' })).toBeFocused()
  await expect(page.getByText('This sheet runs by itself on Mon 12 Apr, 7:00 am')).toBeVisible()
  const orla = await enter(site, 'orla.denholt')
  expect((await orla.request.post('/api/students/1/sign-off', { data: { term: 'AU27' } })).ok()).toBe(true)

  await page.reload()
  await settled(page)
  await expect(lines.nth(0)).toContainText('MATH 231')
  await expect(lines.nth(2)).toContainText('ENDA 310')
  await expect(page.getByRole('checkbox', { name: 'Register WRIT 215' })).not.toBeChecked()
  await orla.goto('/students/1/register')
  await expect(orla.getByText('This sheet runs by itself')).toBeVisible()
  await expect(orla.getByRole('button', { name: 'Do not run it for me' })).toHaveCount(0)

  await site.query(
    `update section s join course c on c.id = s.course_id join term t on t.id = s.term_id
     set capacity = taken + offered where c.code = 'MATH 231' and t.code = 'AU27'`
  )
  await setClock(orla, OPENS)
  const receipt = page.getByRole('region', { name: /^Receipt/ })
  await expect(receipt).toContainText('Imke Varga, run by itself at the opening')
  await expect(receipt).toContainText('3 lines of 3 went through')
  await receipt.getByRole('button', { name: 'Read it' }).click()
  await expect(receipt).toContainText('MATH 240 in place of MATH 231, which did not go through.')
  await expect(page.getByRole('checkbox', { name: 'Register WRIT 215' })).not.toBeChecked()
  await expect(page.getByText('This sheet runs by itself')).toHaveCount(0)
  await page.goto('/account')
  await expect(page.getByText('3 of 3 lines ended in a seat')).toBeVisible()
  for (const one of [page, orla]) await leave(one)
})

test('an opening morning: a crowd comes, seats go on every screen, and what is written agrees @long', async ({
  site
}) => {
  const page = await enter(site, 'edda.whitlock')
  await setClock(page, '2027-04-13T10:00:00.000Z')
  const refused = await page.request.post('/api/demo/morning', { data: { students: 0 } })
  expect([refused.status(), await refused.text()]).toEqual([400, expect.stringContaining('at least 1')])
  const imke = await enter(site, 'imke.varga')
  await imke.goto('/students/1/register')
  await settled(imke)
  const begun = await page.request.post('/api/demo/morning', { data: { students: 15 } })
  expect(await begun.json()).toMatchObject({
    state: 'preparing',
    people: 15,
    opens: Date.parse('2027-04-13T11:00Z')
  })
  expect((await page.request.post('/api/demo/morning', { data: { students: 15 } })).status()).toBe(409)
  await imke.getByRole('button', { name: /^Campus clock/ }).click()
  const told = imke.locator('.morning')
  await expect(told).toContainText('15 students wait for the opening.', { timeout: 40_000 })
  await expect(told).toContainText(/15 of 15 students have run their sheets: .* Half of the runs/, {
    timeout: 60_000
  })
  await expect(told).not.toContainText('failed')
  await expect(imke.getByRole('button', { name: 'Run the opening morning' })).toBeVisible()
  const [row] = await site.query(
    `select sum(s.taken) = (select count(*) from registration) as counts, min(s.capacity - s.taken - s.offered) >= 0 as room,
       (select count(*) from receipt where at >= '2027-04-13 11:00:00' and ended_at is not null) as receipts from section s`
  )
  expect(row).toEqual({ counts: 1, room: 1, receipts: 15 })
  for (const one of [page, imke]) await leave(one)
})
