import { wellMade } from './axe'
import { choose, enter, expect, leave, test } from './site'

test.use({ scenario: 'caseload' })

test('a class of 30 is planned with, one of them takes it, and the advisor sees it @long', async ({
  site
}) => {
  const orla = await enter(site, 'orla.denholt')
  await orla.goto('/students')
  await orla.getByRole('button', { name: 'Plan with a group …' }).click()
  const dialog = orla.getByRole('dialog')
  await expect(dialog.getByText('Give it a title.')).toBeVisible()
  await dialog.getByLabel('title, such as First autumn').fill('Second years, autumn')
  await dialog.getByLabel('courses', { exact: true }).fill('HERI 320')
  await orla.getByRole('option', { name: /^HERI 320/ }).click()
  await dialog.getByLabel('a task, such as Ask for a review').fill('Ask for a review')
  await dialog.getByLabel('to be done by').fill('2027-04-15')
  const boxes = dialog.getByRole('listitem').getByRole('checkbox')
  await dialog.getByLabel('Plan with Imke Varga').click()
  for (let chosen = 1, i = 0; chosen < 30; i++) {
    if (await boxes.nth(i).isChecked()) continue
    await boxes.nth(i).click()
    chosen++
  }
  await wellMade(orla, 'planning with a group')
  await dialog.getByRole('button', { name: 'Offer it to 30' }).click()
  await expect(orla.getByText('Offered to 30 students.')).toBeVisible({ timeout: 60_000 })
  const groups = orla.getByRole('region', { name: 'Groups' })
  await expect(groups).toContainText('task done by 0 of 30')
  await expect(groups).toContainText(/0 of \d+ accepted/)

  const imke = await enter(site, 'imke.varga')
  await imke.goto('/students/1/today')
  await expect(imke.getByText('Ask for a review').first()).toBeVisible()
  await imke.goto('/students/1/route')
  await imke
    .getByRole('button', { name: /^Accept/ })
    .first()
    .click()
  await expect(groups).toContainText(/1 of \d+ accepted/)
  await groups.getByRole('button', { name: 'Second years, autumn' }).click()
  await wellMade(orla, 'a group and how it stands')
  for (const page of [orla, imke]) await leave(page)
})

test('all climbs are drawn, with a way to each student @long', async ({ site }) => {
  const orla = await enter(site, 'orla.denholt')
  await orla.goto('/students')
  await orla.getByRole('button', { name: 'The climb of all' }).click()
  const studentRecord = orla.getByRole('img', { name: /students: \d+ behind the pace of their program/ })
  await expect(studentRecord.locator('svg path').first()).toBeAttached()
  await wellMade(orla, 'the climb of all')
  await leave(orla)
})

test('an advisor who is away has somebody stand in, and hands a student over @long', async ({ site }) => {
  const orla = await enter(site, 'orla.denholt')
  await orla.goto('/hours')
  await orla.getByLabel('first day away').fill('2027-04-09')
  await orla.getByLabel('last day away').fill('2027-04-16')
  await choose(orla, 'who stands in', 'Rhys Calder')
  await orla.getByRole('button', { name: 'Add it' }).click()
  await expect(orla.getByText('Rhys Calder stands in')).toBeVisible()
  await wellMade(orla, 'hours with somebody who stands in')

  const imke = await enter(site, 'imke.varga')
  await imke.goto('/students/1/today')
  await expect(imke.getByText('Away to 16 Apr; Rhys Calder stands in.')).toBeVisible()
  const rhys = await enter(site, 'rhys.calder')
  await rhys.goto('/students')
  await expect(rhys.getByText('for Orla Denholt, who is away').first()).toBeVisible()
  expect((await rhys.request.get('/api/students/1')).status()).toBe(200)

  await orla.goto('/desk')
  await orla.getByRole('button', { name: 'Hand over …' }).click()
  const dialog = orla.getByRole('dialog')
  await choose(orla, 'to', /^Rhys Calder/)
  await dialog.getByLabel('what the next advisor should know').fill('Wants to finish a term early.')
  await dialog.getByLabel('Hand over Mira Sandoval').click()
  await wellMade(orla, 'handing over')
  await dialog.getByRole('button', { name: 'Hand over 1' }).click()
  await expect(orla.getByText('1 student handed over to Rhys Calder.')).toBeVisible()
  expect((await orla.request.get('/api/students/12')).status()).toBe(403)
  await rhys.goto('/students/12/route')
  await expect(rhys.getByText('Wants to finish a term early.')).toBeVisible()
  for (const page of [orla, imke, rhys]) await leave(page)
})
