import { settled } from './axe'
import { enter, expect, leave, OPENS, setClock, test } from './site'

test.use({ scenario: 'prepared' })

test('a sheet is put in order, kept over a reload, and runs by itself with another course as its fallback at the opening', async ({
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
