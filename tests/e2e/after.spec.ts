import type { Page } from '@playwright/test'
import { clean, settled } from './axe'
import { prepare } from './prepare'
import { enter, expect, leave, setClock, test, type DemoSite } from './site'

test.use({ scenario: 'after' })

/** The online section of a course, with so many seats left. */
async function seatsLeft(site: DemoSite, left: number): Promise<{ id: number; code: string }> {
  const [section] = await site.query<{ id: number; code: string }>(
    `select s.id, s.code from section s join course c on c.id = s.course_id join term t on t.id = s.term_id
     where c.code = 'ENDA 325' and t.code = 'AU27' and s.mode = 'online'`
  )
  await site.query('update section set capacity = taken + offered + ?, wait_capacity = 6 where id = ?', [
    left,
    section!.id
  ])
  return section!
}
const receipt = (page: Page) => page.locator('.receipt')
async function addFallback(page: Page, title: string | RegExp): Promise<void> {
  await page.getByRole('button', { name: 'Add a fallback for ENDA 325' }).click()
  await page.getByRole('listitem').filter({ hasText: title }).click()
}
async function countsHold(site: DemoSite, section: number): Promise<void> {
  const [row] = await site.query(
    `select taken = (select count(*) from registration where section_id = s.id) as seats,
       waiting = (select count(*) from waitlist_place where section_id = s.id) as places from section s where id = ?`,
    [section]
  )
  expect(row).toEqual({ seats: 1, places: 1 })
}

test('a seat is dropped knowingly, offered to the first in line, and taken with one answer @long', async ({
  site
}) => {
  const section = await seatsLeft(site, 1)
  const orla = await enter(site, 'orla.denholt')
  const hanne = await enter(site, 'hanne.petrossian')
  const priya = await enter(site, 'priya.castellane')
  await prepare(hanne, orla, 'ENDA 325', section.code)
  await hanne.getByRole('button', { name: 'Register 1', exact: true }).click()
  await expect(receipt(hanne)).toContainText('1 line of 1 went through')

  await prepare(priya, orla, 'ENDA 325', section.code)
  await expect(priya.getByText('A place in line would be number 1.')).toBeVisible()
  await addFallback(priya, 'Stand in line')
  await priya.getByRole('button', { name: 'Stand in line for 1' }).click()
  await expect(receipt(priya)).toContainText('You are number 1 in line. A place in line is not a seat.')
  await expect(priya.getByText('number 1 of 1 in line')).toBeVisible()
  await clean(priya, 'in line')

  await hanne.getByRole('button', { name: 'Drop ENDA 325' }).click()
  const ask = hanne.getByRole('group', { name: 'Drop ENDA 325' })
  await expect(ask).toContainText('It leaves no trace on your record.')
  await expect(ask).toContainText('The seat goes to the line: 1 wait for ENDA 325.')
  await clean(hanne, 'drop asked')
  await ask.getByRole('button', { name: 'Keep it' }).click()
  await expect(ask).toHaveCount(0)
  await hanne.getByRole('button', { name: 'Drop ENDA 325' }).click()
  await ask.getByRole('button', { name: 'Drop ENDA 325' }).click()
  await expect(receipt(hanne)).toContainText('your record keeps no trace of it')

  // It is on her screen by itself.
  const offer = priya.getByRole('region', { name: 'A seat in ENDA 325 is held for you' })
  await expect(offer).toContainText('2 d 00:00:00')
  await expect(priya.getByRole('link', { name: /^Register/ })).toContainText('offer ends in 2 d')
  await clean(priya, 'an offer')
  await priya.getByRole('link', { name: /^Today/ }).click()
  await expect(priya.getByText('A seat in ENDA 325 is held for you')).toBeVisible()
  await priya.getByRole('button', { name: 'Answer the offer' }).click()
  await offer.getByRole('button', { name: 'Accept the seat' }).click()
  await expect(receipt(priya).locator('li', { hasText: 'ENDA 325' })).toContainText('registered')
  await expect(offer).toHaveCount(0)
  await countsHold(site, section.id)
  for (const page of [hanne, priya, orla]) await leave(page)
})

test('an offer without an answer goes to the next in line at its instant, and not before @long', async ({
  site
}) => {
  const section = await seatsLeft(site, 0)
  const orla = await enter(site, 'orla.denholt')
  const hanne = await enter(site, 'hanne.petrossian')
  const priya = await enter(site, 'priya.castellane')
  await prepare(hanne, orla, 'ENDA 325', section.code)
  await addFallback(hanne, 'Stand in line')
  await hanne.getByRole('button', { name: 'Stand in line for 1' }).click()
  await expect(receipt(hanne)).toContainText('You are number 1 in line')
  await priya.goto('/students/' + (await studentOf(priya)) + '/register')
  await priya.getByRole('button', { name: 'Drop ENDA 325' }).click()
  await priya
    .getByRole('group', { name: 'Drop ENDA 325' })
    .getByRole('button', { name: 'Drop ENDA 325' })
    .click()

  const offer = hanne.getByRole('region', { name: 'A seat in ENDA 325 is held for you' })
  await expect(offer).toBeVisible()
  const [made] = await site.query<{ until: Date }>('select until from seat_offer where answer is null')
  const ends = made!.until.getTime()
  await setClock(orla, new Date(ends - 1000).toISOString())
  await expect(offer).toContainText('00:00:01')
  await setClock(orla, new Date(ends).toISOString())
  await expect(offer).toHaveCount(0)
  const answers = await site.query<{ answer: string }>(
    'select answer from seat_offer order by id desc limit 1'
  )
  expect(answers).toEqual([{ answer: 'lapsed' }])
  await countsHold(site, section.id)
  for (const page of [hanne, priya, orla]) await leave(page)
})

async function studentOf(page: Page): Promise<number> {
  return ((await (await page.request.get('/api/session')).json()) as { student: number }).student
}

test('everything is dropped in one guarded action, which says what it costs @long', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  const orla = await enter(site, 'orla.denholt')
  await setClock(orla, '2027-04-12T11:00:00.000Z')
  expect((await orla.request.post('/api/students/1/sign-off', { data: { term: 'AU27' } })).ok()).toBe(true)
  await page.goto('/students/1/register')
  await settled(page)
  await page.getByRole('button', { name: /^Register \d$/ }).click()
  await expect(receipt(page)).toContainText('went through')
  await clean(page, 'after the run')
  await page.getByRole('button', { name: 'Drop everything …' }).click()
  const ask = page.getByRole('group', { name: /^Drop / })
  await expect(ask).toContainText('you would be part-time')
  await ask.getByRole('button', { name: 'Keep them' }).click()
  // One is given up for another, one dropped with the same run.
  const [wanted] = await site.query<{ code: string }>(
    `select s.code from section s join course c on c.id = s.course_id join term t on t.id = s.term_id
     where c.code = 'GEOS 210' and s.number = '01' and t.code = 'AU27'`
  )
  const picks = [{ course: 'GEOS 210', sections: [wanted!.code] }]
  expect((await page.request.post('/api/students/1/picks', { data: { term: 'AU27', picks } })).ok()).toBe(
    true
  )
  const line = page.getByRole('row', { name: /^Register GEOS 210/ })
  await expect(line).toContainText('It clashes with ENDA 310')
  await line.getByRole('button', { name: 'give up ENDA 310 for it' }).click()
  await expect(line).toContainText('every check passes')
  await page.getByRole('button', { name: 'Drop WRIT 215' }).click()
  await page.getByRole('button', { name: 'Drop with the run' }).click()
  await line.getByRole('button', { name: 'Add a note on GEOS 210' }).click()
  await page.getByRole('textbox', { name: 'Note on GEOS 210' }).fill('before the maps course')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Keep WRIT 215' })).toBeVisible()
  await clean(page, 'drops prepared')
  await page.getByRole('button', { name: 'Drop 1, register 1' }).click()
  await expect(receipt(page)).toContainText('3 lines of 3 went through.')
  await expect(receipt(page).locator('li', { hasText: 'ENDA 310' })).toContainText(
    'given up for another line'
  )
  await expect(page.getByText('before the maps course')).toBeVisible()
  await page.getByRole('button', { name: 'Drop everything …' }).click()
  await ask.getByRole('button', { name: /^Drop / }).click()
  await expect(receipt(page).getByRole('listitem').filter({ hasText: 'GEOS 210' })).toContainText('dropped')
  await expect(page.getByRole('button', { name: /^Drop / })).toHaveCount(0)
  const [row] = await site.query<{ held: number }>(
    `select count(*) as held from registration r join section s on s.id = r.section_id join term t on t.id = s.term_id
     where r.student_id = 1 and t.code = 'AU27'`
  )
  expect(row).toEqual({ held: 0 })
  // Nothing of it returns by itself.
  await page.reload()
  await settled(page)
  await expect(page.getByRole('checkbox', { name: /^Register / })).toHaveCount(0)
  for (const one of [page, orla]) await leave(one)
})

test('sections are added by their codes in two actions, and a fallback is taken where the first is full @long', async ({
  site
}) => {
  const section = await seatsLeft(site, 0)
  const page = await enter(site, 'imke.varga')
  await setClock(page, '2027-04-12T11:00:00.000Z')
  await page.goto('/students/1/register')
  await settled(page)
  await page.getByRole('button', { name: 'Add by section code' }).click()
  const field = page.getByRole('textbox', { name: 'Section codes or numbers' })
  await field.fill(`${section.code} musi 102-01 ABCDE`)
  await expect(page.getByText('ABCDE is mistyped: its last character does not fit the others.')).toBeVisible()
  await clean(page, 'by code')
  await field.press('Enter')
  // What could not be added stays, what could is on the sheet.
  await expect(field).toHaveValue('ABCDE')
  await page.getByRole('form', { name: 'Add by section code' }).getByRole('button', { name: 'Close' }).click()
  await expect(page.getByRole('row', { name: /MUSI 102/ })).toContainText('Mon Wed 8:00')
  await addFallback(page, /^04 /)
  await expect(page.getByText('You would be number')).toHaveCount(0)
  const orla = await enter(site, 'orla.denholt')
  expect((await orla.request.post('/api/students/1/sign-off', { data: { term: 'AU27' } })).ok()).toBe(true)
  await page.getByRole('button', { name: /^Register \d/ }).click()
  const line = receipt(page).locator('li', { hasText: 'ENDA 325' })
  await expect(line).toContainText('Fallback 1 was taken')
  await expect(line.locator('.outcome')).toHaveText('registered')
  for (const one of [page, orla]) await leave(one)
})

test('a section that is found by searching is registered in one action @long', async ({ site }) => {
  const hanne = await enter(site, 'hanne.petrossian')
  await setClock(hanne, '2027-04-16T12:00:00.000Z')
  await hanne.goto('/students/7/week/sections?q=LANG%20140')
  await hanne.getByRole('button', { name: 'Register LANG 140-01' }).click()
  await expect(hanne).toHaveURL(/\/register$/)
  await expect(
    receipt(hanne).getByRole('listitem').filter({ hasText: 'LANG 140' }).locator('.outcome')
  ).toHaveText('registered')
  const held = await site.query(
    `select s.number from registration r join section s on s.id = r.section_id join course c on c.id = s.course_id
     join term t on t.id = s.term_id where r.student_id = 7 and c.code = 'LANG 140' and t.code = 'AU27'`
  )
  expect(held).toEqual([{ number: '01' }])
  await leave(hanne)
})

test('a section is cancelled by the registrar: who was in it is told, and registers another one from the Week @long', async ({
  site
}) => {
  const hanne = await enter(site, 'hanne.petrossian')
  const edda = await enter(site, 'edda.whitlock')
  await setClock(edda, '2027-04-16T12:00:00.000Z')
  await hanne.goto('/students/7/week')
  await settled(hanne)
  await edda.goto('/students/7/week/sections?q=LANG%20140')
  await edda.getByRole('button', { name: /^LANG 140-01/ }).click()
  await edda.getByRole('button', { name: 'Cancel the section …' }).click()
  await expect(edda.getByText(/^1 seat is taken or offered, 0 in line\./)).toBeVisible()
  await edda.getByRole('textbox', { name: 'Reason' }).fill('too few have asked for it')
  await clean(edda, 'cancelling a section')
  await edda.getByRole('button', { name: 'Cancel it' }).click()
  await expect(edda.getByText('LANG 140-01 is cancelled, and its seats are given back.')).toBeVisible()
  const [mail] = await site.query<{ n: number }>(
    `select count(*) as n from mail m join event_log e on e.id = m.event_id
     where e.student_id = 7 and e.action = 'registration.cancelled'`
  )
  expect(mail).toEqual({ n: 1 })
  await hanne.goto('/account')
  await expect(
    hanne.getByText(/LANG 140-01, Autumn 2027, was cancelled\. Your seat in it is given back/)
  ).toBeVisible()
  await hanne.goto('/students/7/week')
  const course = hanne.locator('section.course', { hasText: 'LANG 140' })
  await course.getByRole('button').filter({ hasText: 'LANG 140-03' }).first().click()
  await hanne.getByRole('button', { name: /^Register \d/ }).click()
  await expect(hanne).toHaveURL(/\/register$/)
  await expect(
    receipt(hanne).getByRole('listitem').filter({ hasText: 'LANG 140' }).locator('.outcome')
  ).toHaveText('registered')
  for (const one of [hanne, edda]) await leave(one)
})

test('a lab is cancelled by the registrar: the lecture is kept, and another lab registered beside it @long', async ({
  site
}) => {
  const imke = await enter(site, 'imke.varga')
  const orla = await enter(site, 'orla.denholt')
  const edda = await enter(site, 'edda.whitlock')
  const sections = await site.query<{ code: string; number: string }>(
    `select s.code, s.number from section s join course c on c.id = s.course_id join term t on t.id = s.term_id
     where c.code = 'SOIL 220' and t.code = 'AU27'`
  )
  const codeOf = (number: string) => sections.find((one) => one.number === number)!.code
  await prepare(imke, orla, 'SOIL 220', codeOf('01'), codeOf('01A'))
  const data = { term: 'AU27', courses: ['SOIL 220'] }
  expect((await imke.request.post('/api/students/1/runs', { data })).ok()).toBe(true)

  await edda.goto('/offer/AU27/SOIL-220')
  await edda.getByRole('button', { name: 'Cancel the lab …' }).first().click()
  const form = edda.getByRole('form', { name: 'Cancel the lab' })
  await expect(form).toContainText('Who held one keeps the seat in the rest of the section.')
  await form.getByRole('textbox', { name: 'Reason' }).fill('the room is under water')
  await clean(edda, 'cancelling a lab')
  await form.getByRole('button', { name: 'Cancel it' }).click()
  await expect(edda.getByText('SOIL 220-01A is cancelled, and its seats are given back.')).toBeVisible()

  await imke.goto('/students/1/today')
  await expect(imke.getByText('You hold SOIL 220 without its lab')).toBeVisible()
  await imke.goto('/students/1/week')
  await expect(
    imke.getByText('You hold SOIL 220 without its lab. Exchange it for one with all its parts.')
  ).toBeVisible()
  await imke.getByRole('button', { name: 'Exchange it for another section of SOIL 220' }).click()
  await imke.getByRole('button', { name: /^SOIL 220-01 .*lab 01B/s }).click()
  await expect(
    imke.getByText('SOIL 220: lab 01B is to be registered beside what you hold of it.')
  ).toBeVisible()
  await imke.goto('/students/1/register')
  await imke.getByRole('button', { name: /^Register \d/ }).click()
  await expect(
    receipt(imke).getByRole('listitem').filter({ hasText: 'SOIL 220' }).locator('.outcome')
  ).toHaveText(/^(registered|exchanged)$/)
  await imke.goto('/students/1/today')
  await expect(imke.getByText('You hold SOIL 220 without its lab')).toHaveCount(0)
  for (const one of [imke, orla, edda]) await leave(one)
})
