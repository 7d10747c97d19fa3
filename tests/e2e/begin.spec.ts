/** A college begins with nothing but the link of its first registrar: on the pages alone, without a file. */
import { clean } from './axe'
import { emptyCollege } from './emptyCollege'
import { expect, leave, test, visit } from './site'

test.use({ scenario: 'begin' })

test('a registrar says what the college is, makes its first term and writes its first course @long', async ({
  site
}) => {
  const { key, served, site: empty } = await emptyCollege(site)
  const page = await visit(empty)
  try {
    await page.goto(`/welcome/${key}`)
    await page.getByLabel('Password').fill('a long and winding lane')
    await page.getByRole('button', { name: 'Set it and sign in' }).click()
    await expect(page.getByRole('heading', { name: 'A college' })).toBeVisible()

    await test.step('what it is called, where it is, and its rooms', async () => {
      await clean(page, 'a college that is not there yet')
      await page.getByLabel('name', { exact: true }).fill('Saltmarsh College')
      await page.getByRole('button', { name: 'Save', exact: true }).first().click()
      await expect(page.getByText('This has to be a zone', { exact: false })).toBeVisible()
      await page.getByLabel('time zone').fill('America/Halif')
      await page.getByRole('option', { name: 'America/Halifax' }).click()
      await page.getByLabel('code of campus 1', { exact: false }).fill('QUAY')
      await page.getByLabel('name of campus 1').fill('Quay')
      await page.getByRole('button', { name: 'Save', exact: true }).first().click()
      await expect(page.getByRole('heading', { name: 'Saltmarsh College' })).toBeVisible()
      await page.getByRole('button', { name: 'Rooms', exact: true }).click()
      await page.getByRole('button', { name: 'Add a building' }).click()
      await page.getByLabel('building 1', { exact: true }).fill('Tide Mill')
      const rooms = page.getByLabel(/^rooms of building 1/)
      await rooms.fill('101, 40\nthe attic')
      await expect(page.getByText('Line 2 has to be a room', { exact: false })).toBeVisible()
      await rooms.fill('101, 40\nthe attic, 12')
      await page.getByRole('button', { name: 'Save', exact: true }).filter({ visible: true }).click()
      await expect(page.getByLabel('rooms of building 1, 2 rooms')).toBeVisible()
      await page.getByRole('button', { name: 'Grades', exact: true }).click()
      await clean(page, 'the grades of a college')
    })

    await test.step('its first term, and its first course', async () => {
      await page.getByRole('link', { name: 'Terms', exact: true }).last().click()
      await page.getByRole('button', { name: 'Add a term' }).click()
      const term = page.getByRole('dialog', { name: 'A term by itself' })
      await term.getByLabel('name', { exact: true }).fill('Autumn 2027')
      await term.getByLabel('code, such as AU27').fill('AU27')
      await term.getByLabel('first day').fill('2027-08-30')
      await term.getByLabel('last day').fill('2027-12-17')
      await term.getByRole('button', { name: 'Make it' }).click()
      await expect(page.getByRole('heading', { name: 'Autumn 2027', level: 1 })).toBeVisible()
      await page.goto('/courses/new')
      await page.getByLabel('code, such as ENVI 310').fill('TIDE 101')
      await page.getByLabel('title').fill('Tides')
      await clean(page, 'a first course')
      await page.getByRole('button', { name: 'Put it in the catalog' }).click()
      await expect(page.getByRole('heading', { name: 'TIDE 101 Tides' })).toBeVisible()
    })
    await leave(page)
  } finally {
    await served.stop()
  }
})
