/** A program's next version: written, tried on records, published; nobody's own program changes by it. */
import { clean } from './axe'
import { enter, expect, leave, test, visit } from './site'

test.use({ scenario: 'programs' })

test('a rule of a program is changed with its effect seen, and the version published @long', async ({
  site
}) => {
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
    await expect(page.getByRole('heading', { name: 'Programs and courses' })).toBeVisible()
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

test('a course is written anew with its effect seen, and a list of courses for a later year @long', async ({
  site
}) => {
  const page = await enter(site, 'edda.whitlock')
  await page.goto('/courses/ENDA-310')
  await page.getByRole('link', { name: 'Write it anew' }).click()
  await expect(page.getByRole('heading', { name: /^ENDA 310 / })).toBeVisible()
  await expect(page.getByText(/: no figure changes\.$/)).toBeVisible()
  await clean(page, 'a course written anew')
  const rule = page.getByRole('textbox', { name: 'What it needs before it, as a rule' })

  await test.step('a rule that cannot be read, or names no course, stands at its field', async () => {
    await rule.fill('ENVI 101 and')
    await expect(page.getByText('As soon as it can be read, it stands here.')).toBeVisible()
    await expect(page.locator('.cm-lintRange-error')).toBeVisible()
    await rule.fill('ENVI 999')
    await expect(
      page.getByRole('alert').filter({ hasText: 'the catalog has no course ENVI 999' })
    ).toBeVisible()
    await expect(page.getByRole('button', { name: 'Save it' })).toBeDisabled()
  })

  await test.step('what is offered while it is written, how it is read, and whom it concerns', async () => {
    await rule.fill('standing ')
    await rule.press('Control+Space')
    await page.getByRole('option', { name: /^graduate/ }).click()
    await expect(page.getByText('graduate standing', { exact: true })).toBeVisible()
    await expect(page.getByText(/: figures change for [1-9]\d*\.$/)).toBeVisible()
    await clean(page, 'the effect of a course')
    await page.getByRole('button', { name: 'Save it' }).click()
    await expect(page.getByText('ENDA 310: as you wrote it, from now on.')).toBeVisible()
    await expect(page.getByRole('button', { name: 'Save it' })).toBeDisabled()
  })

  await test.step('whoever looks at the course reads it so', async () => {
    await page.getByRole('link', { name: 'The course', exact: true }).click()
    await expect(page.getByText('standing graduate')).toBeVisible()
  })

  await test.step('a list for a later year holds what its text says', async () => {
    await page.goto('/programs')
    const lists = page.getByRole('region', { name: 'Course lists' })
    await lists
      .getByRole('button', { name: /^Write the next year of/ })
      .first()
      .click()
    const set = page.getByRole('textbox', { name: 'The courses, as a set' })
    await set.fill('ENVI 999')
    await expect(page.getByText('It cannot be read yet: the catalog has no course ENVI 999.')).toBeVisible()
    await set.fill('ENVI 300-499')
    await expect(page.getByText(/^\d+ courses: ENVI 3/)).toBeVisible()
    await clean(page, 'a course list')
    await page.getByRole('textbox', { name: /^from the catalog year/ }).fill('2044-45')
    await page.getByRole('button', { name: 'Publish it' }).click()
    await expect(page.getByText(/ holds \d+ courses from 2044-45 on/)).toBeVisible()
    await expect(lists.getByText('2044-45')).toBeVisible()
    await leave(page)
  })
})
