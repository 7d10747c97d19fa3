/** The registrar's office: any student is found, holds are placed on a list and lifted, and the student knows at once. */
import type { Page } from '@playwright/test'
import { clean, settled, wellMade } from './axe'
import { choose, enter, expect, leave, PHONE, test } from './site'

test.use({ scenario: 'offices' })

const open = async (page: Page, path: string) => {
  await page.goto(path)
  await settled(page)
}

test('a student is found by name, number or program, and the record opened', async ({ site }) => {
  const edda = await enter(site, 'edda.whitlock')
  await open(edda, '/people')
  await expect(edda.getByText('the first 60 of 317')).toBeVisible()
  const find = edda.getByRole('textbox', { name: 'number, name or program' })
  await find.fill('heri ostr')
  await expect(edda.getByText('1 student', { exact: true })).toBeVisible()
  await expect(edda.getByRole('row', { name: /^Bram Ostrander/ })).toContainText('Library fine')
  await clean(edda, 'students found')
  await find.fill('nobody of this name')
  await expect(edda.getByText(/^No student fits/)).toBeVisible()
  await find.fill('H204007')
  await edda.getByRole('link', { name: 'Imke Varga' }).click()
  await expect(edda.getByText(/^Viewing Imke Varga, as the registrar/)).toBeVisible()
  await leave(edda)
})

test('holds are placed on a list, told to the student at once, and lifted', async ({ site }) => {
  const edda = await enter(site, 'edda.whitlock')
  const imke = await enter(site, 'imke.varga')
  await open(imke, '/students/1/register')
  await expect(imke.getByText('No holds')).toBeVisible()
  await open(edda, '/holds')
  await clean(edda, 'holds')
  await edda.getByRole('button', { name: 'Place holds' }).click()
  const form = edda.getByRole('dialog')
  await choose(edda, 'which hold', /^Library fine/)
  const list = form.getByRole('textbox', { name: /^number, amount/ })
  await list.fill('Number,Amount\nH204007,12.50\n20407')
  await expect(form.getByText('Line 3: “20407” is no student number; one looks like H204007.')).toBeVisible()
  await list.fill('Number,Amount\nH204007,12.50\nH999999,3')
  await form.getByRole('button', { name: 'Place on 2 students' }).click()
  await expect(form.getByRole('alert')).toContainText('Nothing was placed')
  await expect(form.getByRole('alert')).toContainText('H999999')
  await wellMade(edda, 'a list of holds that is refused')
  await list.fill('Number,Amount\nH204007,12.50')
  await form.getByRole('button', { name: 'Place on 1 student' }).click()
  await expect(edda.getByText('Library fine: placed on 1 student.')).toBeVisible()
  await expect(imke.getByText(/Hold: library fine 12\.50/)).toBeVisible()
  await edda.getByRole('button', { name: 'Lift Library fine of Imke Varga' }).click()
  await expect(edda.getByText('Library fine of Imke Varga is lifted.')).toBeVisible()
  await expect(imke.getByText('No holds')).toBeVisible()
  await leave(imke)
  await leave(edda)
  const phone = await enter(site, 'edda.whitlock', PHONE)
  await open(phone, '/holds')
  await wellMade(phone, 'holds on a phone')
  await leave(phone)
})
