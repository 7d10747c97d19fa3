import type { Page } from '@playwright/test'
import { everybodyAgrees } from '../agreed'
import { clean, settled, wellMade } from './axe'
import { choose, enter, expect, leave, OPENS, PHONE, setClock, test, type DemoSite } from './site'

test.use({ scenario: 'permissions' })

async function fill(site: DemoSite, course: string) {
  await site.query(
    `update section s join course c on c.id = s.course_id join term t on t.id = s.term_id
     set s.taken = s.capacity where c.code = '${course}' and t.code = 'AU27' and s.number = '01'`
  )
}
const nobodyWaits = (page: Page) => expect(page.getByText('No request waits for you.')).toBeVisible()

test('a permission is asked from a refusal, handed on, granted on a phone, and used @long', async ({
  site
}) => {
  await everybodyAgrees(site.url)
  await fill(site, 'ENDA 310')
  const imke = await enter(site, 'imke.varga')
  const orla = await enter(site, 'orla.denholt')
  await orla.request.post('/api/students/1/sign-off', { data: { term: 'AU27' } })
  const idris = await enter(site, 'idris.brandvold')
  await idris.goto('/requests')
  await nobodyWaits(idris)

  await imke.goto('/students/1/register')
  await settled(imke)
  await imke.getByRole('button', { name: /^Ask for a seat more in a full section/ }).click()
  await imke.getByLabel('why you ask').fill('The field season builds on it.')
  await wellMade(imke, 'asking for a permission')
  await imke.getByRole('button', { name: 'Ask', exact: true }).click()
  await expect(imke.getByText('Waits for the instructor.')).toBeVisible()

  const card = idris.getByRole('article', { name: 'Imke Varga, ENDA 310' })
  await expect(card).toContainText('The field season builds on it.')
  await expect(card).toContainText(/Let Imke Varga into ENDA 310-01 although all its (\d+) seats are taken/)
  await expect(card).toContainText('You decide, as the instructor')
  await wellMade(idris, 'requests of an instructor')
  await card.getByRole('button', { name: 'say something with it' }).click()
  await card.getByLabel('what you say with it').fill('It is about the room.')
  await card.getByRole('button', { name: 'the department', exact: true }).click()
  await nobodyWaits(idris)
  await expect(imke.getByText('Waits for the department.')).toBeVisible()

  const tamsin = await enter(site, 'tamsin.orford', PHONE)
  await tamsin.goto('/requests')
  const handed = tamsin.getByRole('article', { name: 'Imke Varga, ENDA 310' })
  await expect(handed).toContainText('handed on by Idris Brandvold')
  await expect(handed).toContainText('It is about the room.')
  await wellMade(tamsin, 'requests on a phone')
  expect(await tamsin.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await handed.focus()
  await handed.press('g')
  await nobodyWaits(tamsin)
  await tamsin.getByRole('button', { name: /^Answered/ }).click()
  await expect(handed.getByRole('button', { name: 'Take it back' })).toBeVisible()
  await clean(tamsin, 'answered requests')

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
  for (const page of [imke, orla, idris, tamsin]) await leave(page)
})

test('alike requests are answered together, one left out @long', async ({ site }) => {
  const students = [
    [1, 'imke.varga'],
    [12, 'mira.sandoval'],
    [7, 'hanne.petrossian']
  ] as const
  for (const [id, name] of students) {
    const page = await enter(site, name)
    const said = { kind: 'waiver', course: 'ENDA 410', reason: `took its like, ${name}` }
    expect((await page.request.post(`/api/students/${id}/requests`, { data: said })).ok()).toBe(true)
    await leave(page)
  }
  const orla = await enter(site, 'orla.denholt')
  await orla.goto('/requests')
  const card = orla.getByRole('article', { name: '3 students, ENDA 410' })
  await expect(card).toContainText('without its prerequisite')
  await card.getByLabel('Answer Mira Sandoval').click()
  await wellMade(orla, 'alike requests')
  await card.getByRole('button', { name: 'Grant 2' }).click()
  await expect(orla.getByRole('article', { name: 'Mira Sandoval, ENDA 410' })).toBeVisible()
  const states = await site.query<{ student: number; state: string }>(
    "select student_id as student, state from request where kind = 'waiver' order by student_id"
  )
  expect(states).toEqual([
    { student: 1, state: 'given' },
    { student: 7, state: 'given' },
    { student: 12, state: 'asked' }
  ])
  await leave(orla)
})

test('an instructor sees who is in the sections and who is in line, and nothing else of a record', async ({
  site
}) => {
  const idris = await enter(site, 'idris.brandvold')
  await idris.goto('/')
  await expect(idris.getByRole('heading', { name: 'Your sections' })).toBeVisible()
  await idris
    .getByRole('button', { name: /^Class list of / })
    .first()
    .click()
  await wellMade(idris, 'class list')
  for (const path of ['/desk', '/students/1/route', '/terms']) {
    await idris.goto(path)
    await expect(idris.getByRole('heading', { name: 'This page is not one of yours' })).toBeVisible()
  }
  expect((await idris.request.get('/api/students/1')).status()).toBe(403)
  await leave(idris)
})

test('another course is asked for in place of a requirement, and counts once it is granted @long', async ({
  site
}) => {
  const imke = await enter(site, 'imke.varga')
  await imke.goto('/students/1/degree')
  await settled(imke)
  await imke
    .getByRole('button', { name: /^Ask for an exception for/ })
    .first()
    .click()
  await imke.getByLabel('Reason').fill('I have done the like at sea.')
  await wellMade(imke, 'asking for an exception')
  await imke.getByRole('button', { name: 'Ask', exact: true }).click()
  await expect(imke.getByText(/^Asked today to be excused from a requirement/)).toBeVisible()
  await imke.request.post('/api/students/1/requests', {
    data: {
      ...{ kind: 'substitution', program: 'ENVD', need: 'speaking', course: 'HERI 320' },
      reason: 'Its talk is the longer one.'
    }
  })
  const orla = await enter(site, 'orla.denholt')
  await orla.goto('/requests')
  const card = orla.getByRole('article', { name: 'Imke Varga, HERI 320' })
  await expect(card).toContainText(/Count HERI 320 for Imke Varga as “.+” although it is another course/)
  await card.getByRole('button', { name: 'Grant', exact: true }).click()
  await imke.goto('/students/1/degree')
  await settled(imke)
  await expect(imke.getByText('HERI 320 taken for it')).toBeAttached()
  for (const page of [imke, orla]) await leave(page)
})

test('a program that is reported as wrong is put right by the registrar, with its effect before @long', async ({
  site
}) => {
  const hanne = await enter(site, 'hanne.petrossian')
  const said = { program: 'ENVD', answer: 'wrong', instead: 'BA Heritage and Landscape' }
  expect((await hanne.request.post('/api/students/7/program', { data: said })).ok()).toBe(true)
  const edda = await enter(site, 'edda.whitlock')
  await edda.goto('/requests')
  const card = edda.getByRole('article', { name: /^Hanne Petrossian/ })
  await expect(card.getByRole('button', { name: 'Grant' })).toBeDisabled()
  await choose(edda, 'the program that is right', /^BA Heritage and Landscape/)
  await expect(card).toContainText(/needed \d+ cr/)
  await wellMade(edda, 'a program to be put right')
  await card.getByRole('button', { name: 'Grant' }).click()
  await expect(card).toHaveCount(0)
  await hanne.goto('/students/7/degree')
  await expect(hanne.getByText('BA Heritage and Landscape').first()).toBeVisible()
  for (const page of [hanne, edda]) await leave(page)
})
