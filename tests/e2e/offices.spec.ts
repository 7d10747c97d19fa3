/** The registrar's office: any student is found, holds are placed on a list and lifted, and the student knows at once. */
import type { Page } from '@playwright/test'
import { clean, settled, wellMade } from './axe'
import { prepare } from './prepare'
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
  await expect(edda.getByText(/No student fits/)).toBeVisible()
  await find.fill('H204007')
  await edda.getByRole('link', { name: 'Imke Varga' }).click()
  await expect(edda.locator('.viewing')).toContainText('Viewing Imke Varga, as the registrar')
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

test('an opening is moved, and those concerned are told', async ({ site }) => {
  const edda = await enter(site, 'edda.whitlock')
  const imke = await enter(site, 'imke.varga')
  await open(imke, '/students/1/register')
  await expect(imke.getByText(/Mon 12 Apr 2027, 7:00 am campus time/)).toBeVisible()
  await open(edda, '/openings')
  const row = edda.getByRole('row', { name: /third-year students/ })
  await expect(row).toContainText(/\d+ without a sign-off/)
  await clean(edda, 'openings')
  const moveTo = async (time: string) => {
    await edda.getByRole('button', { name: 'Move the opening third-year students' }).click()
    await edda.getByLabel(/^third-year students: opens/).fill(time)
    await edda.getByRole('button', { name: 'Move it' }).click()
  }
  await moveTo('2027-04-01T07:00')
  await expect(edda.getByRole('alert')).toContainText('It has to be from now on')
  await edda.getByRole('button', { name: 'Cancel' }).click()
  await moveTo('2027-04-12T08:30')
  await expect(edda.getByText(/third-year students: moved\. \d+ students told\./)).toBeVisible()
  await expect(imke.getByText(/Mon 12 Apr 2027, 8:30 am campus time/)).toBeVisible()
  await moveTo('2027-04-12T07:00')
  await expect(imke.getByText(/Mon 12 Apr 2027, 7:00 am campus time/)).toBeVisible()
  await leave(imke)
  await leave(edda)
})

test('a shortage is seen, a section added at hours at which most are free, and the shortage is gone', async ({
  site
}) => {
  test.slow()
  const edda = await enter(site, 'edda.whitlock')
  await edda.goto('/demand')
  await edda.getByRole('link', { name: 'SOIL 220' }).click()
  await expect(edda.getByRole('heading', { name: 'SOIL 220 in Autumn 2027' })).toBeVisible()
  const said = edda.getByRole('status').filter({ hasText: 'want it' })
  await expect(said).not.toContainText('short of')
  for (const section of await edda.getByLabel(/^Seats of \d\d$/).all()) {
    await section.fill('6')
    await section.press('Enter')
    await expect(edda.getByText(/SOIL 220-\d\d has 6 seats\./).first()).toBeVisible()
  }
  await expect(said).toContainText('short of')
  await clean(edda, 'the offer of a course')

  // Where its room is taken, it is not added, and says by whom; nothing that was typed is lost.
  const form = edda.getByRole('region', { name: 'Add a section' })
  await form.getByLabel('Seats').first().fill('40')
  await form.getByLabel('Room').first().fill('Fern 12')
  await edda.getByRole('option', { name: /^Fern 12 / }).click()
  await form.getByRole('button', { name: 'Add it' }).click()
  await expect(form.getByRole('alert')).toContainText('taken by SOIL 220 01 (Tue Thu, 1:00–2:15)')
  await expect(form.getByLabel('Seats').first()).toHaveValue('40')
  await edda.reload()
  await form.getByLabel('Seats').first().fill('40')
  await form.getByRole('listitem').first().getByRole('button').click()
  await form.getByRole('button', { name: 'Add it' }).click()
  await expect(edda.getByText(/Section [0-9A-Z]{5} is added\./).first()).toBeVisible()
  await expect(said).not.toContainText('short of')
  await leave(edda)

  const tamsin = await enter(site, 'tamsin.orford', PHONE)
  await tamsin.goto('/offer/AU27/ENDA-310')
  await settled(tamsin)
  await tamsin
    .getByLabel(/^Seats of \d\d$/)
    .first()
    .fill('0')
  await tamsin.getByRole('button', { name: 'Set', exact: true }).first().click()
  await expect(tamsin.getByRole('alert').first()).toContainText('has to be 1 or more')
  expect(await tamsin.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await clean(tamsin, 'the offer on a phone')
  await tamsin.goto('/offer/AU27/HERI-210')
  await expect(tamsin.getByText('for another department to plan')).toBeVisible()
})

test('the registrar registers for a student, with consent, and both are named', async ({ site }) => {
  const edda = await enter(site, 'edda.whitlock')
  const orla = await enter(site, 'orla.denholt')
  const hanne = await enter(site, 'hanne.petrossian')
  const [section] = await site.query<{ code: string }>(
    `select s.code from section s join course c on c.id = s.course_id join term t on t.id = s.term_id
     where c.code = 'ENDA 325' and t.code = 'AU27' and s.cancelled = 0 and s.taken < s.capacity
       and s.parent_id is null and s.permission_needed = 0 and s.office_only = 0 limit 1`
  )
  const student = await prepare(hanne, orla, 'ENDA 325', section!.code)
  // The advisor may not, and nobody without consent.
  const body = { term: 'AU27', courses: ['ENDA 325'] }
  const asked = (page: Page, data: object) =>
    page.request.post(`/api/students/${student}/runs`, { data }).then((answer) => answer.status())
  expect(await asked(orla, { ...body, consent: 'She has asked me to.' })).toBe(403)
  expect(await asked(edda, body)).toBe(422)

  await open(edda, `/students/${student}/register`)
  const go = edda.getByRole('button', { name: /^Register \d/ })
  await expect(edda.getByText('Say how the student agreed to it.')).toBeVisible()
  await wellMade(edda, 'registering for somebody')
  await edda.getByLabel('how the student agreed to it').fill('On the phone, at 7:10; called back.')
  await go.click()
  const receipt = edda.getByRole('region', { name: /^Receipt/ })
  await expect(receipt).toContainText('Edda Whitlock')
  await expect(receipt).toContainText('“On the phone, at 7:10; called back.”')
  await expect(hanne.getByRole('region', { name: /^Receipt/ })).toContainText('Edda Whitlock')
  await hanne.goto('/account')
  await expect(hanne.getByText('Edda Whitlock has registered for you')).toBeVisible()
  for (const page of [edda, orla, hanne]) await leave(page)
})

test('a kind of hold is made, changed and taken away', async ({ site }) => {
  const edda = await enter(site, 'edda.whitlock')
  await open(edda, '/holds')
  const kinds = edda.getByRole('button', { name: 'Kinds of holds' })
  const dialog = edda.getByRole('dialog', { name: 'Kinds of holds' })
  await kinds.click()
  await dialog.getByLabel('called').fill('Key not returned')
  await dialog.getByLabel('office that lifts it').fill('Housing')
  await dialog.getByLabel('what the student reads').fill('Bring the key to Housing.')
  await wellMade(edda, 'kinds of holds')
  await dialog.getByRole('button', { name: 'Make it' }).click()
  await expect(edda.getByText('Key not returned: saved.')).toBeVisible()
  await kinds.click()
  await choose(edda, 'which', 'Key not returned · Housing')
  await expect(dialog.getByLabel('what the student reads')).toHaveValue('Bring the key to Housing.')
  await dialog.getByLabel('stops transcripts').check()
  await dialog.getByRole('button', { name: 'Save it' }).click()
  await expect(dialog).toHaveCount(0)
  await kinds.click()
  await expect(dialog.getByLabel('stops transcripts')).toBeChecked()
  await dialog.getByRole('button', { name: 'Take it away' }).click()
  await expect(edda.getByText('Key not returned is not placed any more.')).toBeVisible()
  await leave(edda)
})
