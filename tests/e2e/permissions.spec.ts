import { everybodyAgrees } from '../agreed'
import { clean, settled, wellMade } from './axe'
import { enter, expect, leave, OPENS, PHONE, setClock, test } from './site'

test.use({ scenario: 'permissions' })

test('a permission is asked from a refusal, handed on, granted on a phone, and used', async ({ site }) => {
  await everybodyAgrees(site.url)
  await site.query(
    `update section s join course c on c.id = s.course_id join term t on t.id = s.term_id
     set s.taken = s.capacity where c.code = 'ENDA 310' and t.code = 'AU27' and s.number = '01'`
  )
  const imke = await enter(site, 'imke.varga')
  const orla = await enter(site, 'orla.denholt')
  await orla.request.post('/api/students/1/sign-off', { data: { term: 'AU27' } })
  await orla.goto('/requests')
  await expect(orla.getByText('No request waits for you.')).toBeVisible()

  await imke.goto('/students/1/register')
  await settled(imke)
  await imke.getByRole('button', { name: 'ask for a seat more in a full section' }).click()
  await imke
    .getByLabel('why you ask for a seat more in a full section')
    .fill('The field season builds on it.')
  await wellMade(imke, 'asking for a permission')
  await imke.getByRole('button', { name: 'Ask', exact: true }).click()
  await expect(imke.getByText('“The field season builds on it.”')).toBeVisible()

  const card = orla.getByRole('article', { name: 'Imke Varga, ENDA 310' })
  await expect(card).toContainText('The field season builds on it.')
  await expect(card).toContainText(/(\d+) of \1 seats taken; with this one/)
  await expect(card.getByRole('button', { name: 'Grant it' })).toHaveCount(0)
  await clean(orla, 'requests')
  await card.getByRole('button', { name: 'Hand on to the registrar' }).click()
  await expect(orla.getByText('No request waits for you.')).toBeVisible()

  const edda = await enter(site, 'edda.whitlock', PHONE)
  await edda.goto('/requests')
  const handed = edda.getByRole('article', { name: 'Imke Varga, ENDA 310' })
  await expect(handed).toContainText('handed on by Orla Denholt')
  await handed.getByLabel('what you say with it').fill('One chair more.')
  await wellMade(edda, 'requests on a phone')
  expect(await edda.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await handed.getByRole('button', { name: 'Grant it' }).click()
  await expect(edda.getByText('No request waits for you.')).toBeVisible()

  await expect(imke.getByText(/A permission sets aside/).first()).toBeVisible()
  await setClock(imke, OPENS)
  const sent = await imke.request.post('/api/students/1/runs', {
    data: { term: 'AU27', courses: ['ENDA 310'] }
  })
  const receipt = (await sent.json()) as { lines: { outcome: string }[] }
  expect(receipt.lines.map((line) => line.outcome)).toEqual(['registered'])
  const [counts] = await site.query<{ left: number }>(
    `select cast(s.capacity as signed) - s.taken as \`left\` from section s join course c on c.id = s.course_id
     join term t on t.id = s.term_id where c.code = 'ENDA 310' and t.code = 'AU27' and s.number = '01'`
  )
  expect(counts!.left).toBe(0)
  for (const page of [imke, orla, edda]) await leave(page)
})
