/** The record, a transcript to be sent, and the way to graduation. */
import { clean, settled, wellMade } from './axe'
import { choose, enter, expect, leave, PHONE, sent, setClock, test } from './site'

test.use({ scenario: 'record' })

const SAOIRSE = 3

test('what was taken stands term by term, and as a transcript; the end of the degree is applied for and followed @long', async ({
  site
}) => {
  test.slow()
  const saoirse = await enter(site, 'saoirse.lindqvist')
  await saoirse.goto(`/students/${SAOIRSE}/degree`)
  await saoirse.getByRole('link', { name: 'Record', exact: true }).click()
  await settled(saoirse)
  const autumn = saoirse
    .getByRole('list')
    .filter({ has: saoirse.getByRole('listitem', { name: 'Autumn 2026' }) })
  await expect(autumn.first()).toBeVisible()
  await expect(saoirse.getByRole('row', { name: /^Earned 14 14 15 15 17 0$/ })).toBeVisible()
  await saoirse.getByRole('button', { name: 'ENDA 310, 4 credits, B' }).click()
  await expect(saoirse.getByRole('complementary', { name: 'Course ENDA 310' })).toBeVisible()
  await saoirse.keyboard.press('Escape')

  // Two credits short: said, with where to do something about it, and the key does nothing yet.
  const application = saoirse.getByRole('region', { name: 'Application to graduate' })
  await expect(application).toContainText('1 thing still in the way')
  await expect(application).toContainText('2 credits of it are needed')
  await expect(application.getByRole('button', { name: /^Apply/ })).toHaveCount(0)
  const { route } = (await (await saoirse.request.get(`/api/students/${SAOIRSE}`)).json()) as {
    route: { id: number; version: number }
  }
  const planned = { course: 'ARTS 120', term: 'SP28', credits: 3, note: null, locked: false }
  const added = await saoirse.request.post(`/api/students/${SAOIRSE}/route`, {
    data: { route: route.id, version: route.version, change: { kind: 'add', planned } }
  })
  expect(added.ok(), await added.text()).toBe(true)
  await application.getByRole('button', { name: 'Apply for Spring 2028' }).click()
  await expect(application.getByRole('status')).toContainText('Applied for Spring 2028')
  await sent(saoirse)
  await clean(saoirse, 'record')

  // The transcript: read, and one sent to somebody; what is wrong stands at its field, and nothing is lost.
  const transcript = saoirse.getByRole('region', { name: 'Transcript' })
  await transcript.getByRole('button', { name: 'Name somebody' }).click()
  await transcript.getByLabel('To', { exact: true }).fill('Tarn Valley Water Board')
  await transcript.getByLabel('Their e-mail').fill('people at tarn')
  await transcript.getByRole('button', { name: 'Ask for it' }).click()
  await expect(transcript).toContainText('This has to be an address such as office@example.org.')
  await transcript.getByLabel('Their e-mail').fill('people@tarnvalley.example')
  await choose(saoirse, 'When', 'with the grades of Spring 2027')
  await transcript.getByRole('button', { name: 'Ask for it' }).click()
  await expect(transcript.getByRole('listitem')).toContainText('waits for the grades of Spring 2027')
  await transcript.getByRole('button', { name: 'take it back' }).click()
  await expect(transcript.getByRole('listitem')).toHaveCount(0)
  await transcript.getByRole('button', { name: 'Name somebody' }).click()
  await transcript.getByLabel('To', { exact: true }).fill('Merrow Archive')
  await transcript.getByLabel('Their e-mail').fill('desk@merrow.example')
  await choose(saoirse, 'When', 'as the record is now')
  await transcript.getByRole('button', { name: 'Ask for it' }).click()
  await expect(transcript.getByRole('listitem')).toContainText('waits to be sent')
  await sent(saoirse)

  // The registrar follows it, and cannot award what is not earned; the advisor has seen the portfolio.
  const edda = await enter(site, 'edda.whitlock')
  await edda.goto('/requests')
  const cases = edda.getByRole('region', { name: /^Applications to graduate/ })
  await expect(cases).toContainText('Saoirse Lindqvist')
  await expect(cases).toContainText('not complete yet')
  await expect(cases.getByRole('button', { name: /^Award/ })).toHaveCount(0)
  await clean(edda, 'requests with an application')
  const orla = await enter(site, 'orla.denholt')
  await orla.goto(`/students/${SAOIRSE}/degree`)
  await orla.getByRole('button', { name: /^A portfolio.*note as reached$/ }).click()
  await expect(orla.getByRole('button', { name: /^A portfolio.*take back$/ })).toBeVisible()
  await sent(orla)
  await application.getByRole('button', { name: /^show all/ }).click()
  await expect(
    application.getByRole('listitem').filter({ hasText: 'A portfolio shown' }).locator('.visually-hidden')
  ).toHaveText('Done:')
  await leave(orla)
  await setClock(edda, '2027-04-09T13:41:00.000Z')
  await expect(transcript.getByRole('listitem')).toContainText('sent 9 Apr')
  await leave(edda)

  await transcript.getByRole('link', { name: 'Read or print' }).click()
  await settled(saoirse)
  await expect(saoirse.getByRole('article', { name: 'Unofficial transcript' })).toContainText(
    '90 credits attempted, 75 earned'
  )
  await clean(saoirse, 'transcript')
  await leave(saoirse)
})

test('a hold stops transcripts and says who lifts it; the record is read on a phone @long', async ({
  site
}) => {
  const bram = await enter(site, 'bram.ostrander', PHONE)
  await bram.goto('/students/4/degree/record')
  await settled(bram)
  await expect(bram.getByRole('region', { name: 'Transcript' })).toContainText(
    'Library fine (Library desk) stops transcripts'
  )
  expect(await bram.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await clean(bram, 'record on a phone')
  await leave(bram)
  const jonas = await enter(site, 'jonas.thackeray')
  await jonas.goto('/students/13/degree/record')
  await expect(jonas.getByText('Nothing is on your record yet.')).toBeVisible()
  await clean(jonas, 'an empty record')
})

test('the registrar enters something on a record: its effect before, its reason after, and the student sees it @long', async ({
  site
}) => {
  const imke = await enter(site, 'imke.varga')
  await imke.goto('/students/1/degree/record')
  await settled(imke)
  await expect(imke.getByRole('heading', { name: 'Registrar' })).toHaveCount(0)
  const edda = await enter(site, 'edda.whitlock')
  await edda.goto('/students/1/degree/record')
  await settled(edda)
  await edda.getByRole('button', { name: 'Enter something' }).click()
  const dialog = edda.getByRole('dialog', { name: 'Enter on the record of Imke Varga' })
  await choose(edda, 'what', 'Credit from elsewhere, or for a test')
  await dialog.getByLabel('course here').fill('spch 101')
  await expect(dialog.getByText('Say why, in five characters or more.')).toBeVisible()
  await dialog.getByLabel('reason; the student reads it').fill('Taken at Tarn Valley, 2025.')
  await dialog.getByRole('button', { name: 'See what it does' }).click()
  await expect(dialog.getByText('SPCH 101, 3 credits, brought in from elsewhere: TR')).toBeVisible()
  await wellMade(edda, 'an entry that is looked at')
  await dialog.getByRole('button', { name: 'Enter it' }).click()
  await expect(edda.getByText('The student is told.')).toBeVisible()
  await expect(imke.getByRole('button', { name: /^SPCH 101/ })).toBeVisible()

  // What cannot be is said, and nothing that was filled in is lost.
  await edda.getByRole('button', { name: 'Enter something' }).click()
  await dialog.getByLabel('course here').fill('SPCH 101')
  await dialog.getByLabel('reason; the student reads it').fill('Once more.')
  await dialog.getByRole('button', { name: 'See what it does' }).click()
  await expect(dialog.getByText('SPCH 101 was brought in already.')).toBeVisible()
  await expect(dialog.getByLabel('course here')).toHaveValue('SPCH 101')
  await imke.goto('/account')
  await expect(imke.getByText('Your record was changed')).toBeVisible()
  for (const page of [imke, edda]) await leave(page)
})
