import { clean, settled, wellMade } from './axe'
import { choose, enter, expect, leave, PHONE, test } from './site'

test.use({ scenario: 'guidance' })

test('the registrar writes what is to be known, and students read it where it is about something @long', async ({
  site
}) => {
  const imke = await enter(site, 'imke.varga')
  await imke.goto('/students/1/degree')
  await expect(imke.getByRole('complementary', { name: 'From Harrowmere College' })).toContainText(
    'The field season.'
  )
  await imke.goto('/students/1/today')
  await settled(imke)
  await expect(imke.getByText('First year.')).toHaveCount(0)

  const edda = await enter(site, 'edda.whitlock')
  await edda.goto('/terms')
  await edda.getByRole('link', { name: 'Guidance' }).click()
  await expect(edda.getByRole('heading', { name: 'Guidance' })).toBeVisible()
  await clean(edda, 'guidance')
  await edda.getByRole('button', { name: 'Write a text' }).click()
  const form = edda.getByRole('dialog')
  await form.getByLabel('title').fill('First year')
  await form.getByLabel('address with more, if there is one').fill('harrowmere')
  await form.getByRole('button', { name: 'Publish it' }).click()
  await expect(form.getByText('This is needed.')).toBeVisible()
  await expect(form.getByText('This has to be an address that begins with https://.')).toBeVisible()
  await wellMade(edda, 'a text that is refused')
  await form.getByLabel('what is read').fill('Read the guide before you meet your advisor.')
  await form.getByLabel('address with more, if there is one').fill('https://harrowmere.example/first-year')
  await form.getByRole('button', { name: 'Publish it' }).click()
  await expect(edda.getByRole('listitem').filter({ hasText: 'First year' })).toContainText(
    'everybody, on Today'
  )
  // On the open page of a student, without a reload.
  const note = imke.getByRole('complementary', { name: 'From Harrowmere College' })
  await expect(note).toContainText('Read the guide before you meet your advisor.')
  await expect(note.getByRole('link')).toHaveAttribute('href', 'https://harrowmere.example/first-year')
  await clean(imke, 'Today with guidance')

  await edda.getByRole('button', { name: 'Change “First year”' }).click()
  await choose(edda, 'about', 'a term, on Register')
  await choose(edda, 'which', 'Autumn 2027')
  await form.getByRole('button', { name: 'Save it' }).click()
  await expect(note).toHaveCount(0)
  await imke.goto('/students/1/register')
  await expect(imke.getByRole('complementary', { name: 'From Harrowmere College' })).toContainText(
    'First year.'
  )
  await edda.getByRole('button', { name: 'Change “First year”' }).click()
  await edda.getByRole('button', { name: 'Take it away' }).click()
  await expect(imke.getByRole('complementary', { name: 'From Harrowmere College' })).toHaveCount(0)
  await leave(imke)
  await leave(edda)

  const phone = await enter(site, 'edda.whitlock', PHONE)
  await phone.goto('/guidance')
  await settled(phone)
  await wellMade(phone, 'guidance on a phone')
  await leave(phone)
})
