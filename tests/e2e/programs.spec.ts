/** A program's next version: written, tried on records, published; nobody's own program changes by it. */
import { clean } from './axe'
import { enter, expect, leave, test, visit } from './site'

test.use({ scenario: 'programs' })

test('a rule of a program is changed with its effect seen, and the version published', async ({ site }) => {
  const page = await enter(site, 'edda.whitlock')
  await page.goto('/programs')
  await expect(page.getByRole('heading', { name: 'Published' })).toBeVisible()
  await clean(page, 'programs')
  await page.getByRole('button', { name: 'Write the next version of BSc Environmental Data' }).click()
  await expect(page.getByLabel('Catalog year')).toHaveValue('2026-27')
  await clean(page, 'begin a draft')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'BSc Environmental Data' })).toBeVisible()
  await expect(page.getByText('Nothing is wrong with it')).toBeVisible()

  await test.step('a course that there is not is marked where it stands, and the draft is not published', async () => {
    const rule = page.locator('.cm-line', { hasText: 'from: HYDR 205 or SOIL 220' })
    await rule.click()
    await page.keyboard.press('End')
    await page.keyboard.type(' or SOIL 999 ')
    await expect(
      page.getByRole('button', { name: /^line 51 The catalog has no course SOIL 999/ })
    ).toBeVisible()
    await expect(page.locator('.cm-lintRange-error')).toHaveText('SOIL 999')
    await expect(page.getByRole('button', { name: 'Publish', exact: true })).toBeDisabled()
    await clean(page, 'a draft with a fault')
    for (let i = 0; i < ' or SOIL 999 '.length; i++) await page.keyboard.press('Backspace')
    await expect(page.getByText('Nothing is wrong with it')).toBeVisible()
  })

  await test.step('another least grade: the program says it, and so do the records of those who lose by it', async () => {
    await page.locator('.cm-line', { hasText: 'leastGrade: C' }).first().click()
    await page.keyboard.press('End')
    await page.keyboard.press('Backspace')
    await page.keyboard.type('A')
    await expect(page.getByText('A or better', { exact: false }).first()).toBeVisible()
    await page.getByRole('button', { name: 'Its effect' }).click()
    await expect(page.getByText(/^Of 12 records: [1-9]\d* lose, 0 gain/)).toBeVisible()
    await expect(page.getByText('Kept', { exact: true })).toBeVisible()
    await clean(page, 'the effect of a draft')
  })

  await test.step('what is written outlasts a reload, and is published once', async () => {
    await page.reload()
    await expect(page.locator('.cm-line', { hasText: 'leastGrade: A' })).toBeVisible()
    await page.getByRole('button', { name: 'Publish', exact: true }).click()
    await page.getByRole('button', { name: 'Publish it' }).click()
    await expect(page.getByRole('heading', { name: 'Programs' })).toBeVisible()
    await expect(page.getByText('ENVD 2026-27 is published.')).toBeVisible()
    await expect(page.getByRole('row', { name: /ENVD/ })).toContainText('2026-27 0 students')
    await leave(page)
  })

  await test.step('the public page has the new version; a student keeps the one of before', async () => {
    const public_ = await visit(site)
    await public_.goto('/public/programs/ENVD')
    await expect(public_.getByText('catalog 2026-27')).toBeVisible()
    await expect(public_.getByText('A or better')).toBeVisible()
    await leave(public_)
    const imke = await enter(site, 'imke.varga')
    await imke.goto('/students/1/degree/program')
    await expect(imke.getByText('catalog 2025-26').first()).toBeVisible()
    await leave(imke)
  })
})
