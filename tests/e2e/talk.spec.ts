import { readFile } from 'node:fs/promises'
import type { Page } from '@playwright/test'
import { everybodyAgrees } from '../agreed'
import { ACCESS } from '../../server/http/access'
import { clean, settled, wellMade } from './axe'
import { choose, enter, expect, leave, OPENS, PHONE, setClock, test } from './site'

test.use({ scenario: 'talk' })

const threadAbout = (page: Page, subject: string) => page.getByRole('article', { name: `About ${subject}` })
const review = (page: Page) => page.getByRole('region', { name: /^Review of Autumn 2027/ })

test('student and advisor talk, agree, and settle a term on conditions that the registration keeps', async ({
  site
}) => {
  await everybodyAgrees(site.url)
  const imke = await enter(site, 'imke.varga')
  const orla = await enter(site, 'orla.denholt')
  await imke.goto('/students/1/route')
  await settled(imke)
  await orla.goto('/students/1/route')
  await settled(orla)
  await clean(orla, 'a route with the talk, to the advisor')

  await test.step('the talk is put beside the board, and back', async () => {
    const button = orla.getByRole('button', { name: /^The talk/ })
    const [board, talk] = [orla.locator('.board'), orla.getByRole('region', { name: 'The talk' })]
    await button.click()
    await expect(button).toHaveAttribute('aria-pressed', 'true')
    const [left, right] = [(await board.boundingBox())!, (await talk.boundingBox())!]
    expect(right.x).toBeGreaterThan(left.x + left.width)
    expect(right.y).toBeLessThan(left.y + 20)
    await wellMade(orla, 'the talk beside the board')
    await button.click()
    await expect(button).toHaveAttribute('aria-pressed', 'false')
  })

  await test.step('a remark is on the other screen at once, is answered, and becomes read', async () => {
    const pin = imke.getByRole('button', { name: 'Matter 2 of the talk, new' })
    await expect(pin).toBeVisible()
    await pin.click()
    await expect(threadAbout(imke, 'SOIL 220')).toBeFocused()
    await expect(imke.getByRole('button', { name: 'Matter 2 of the talk', exact: true })).toBeVisible()
    await imke.locator('[data-course="ENDA 310"]').first().click()
    await imke.getByRole('menuitem', { name: 'Say something about it' }).click()
    await imke.getByRole('textbox', { name: 'What you want to say to your advisors' }).fill('Is it hard?')
    await imke.getByRole('button', { name: 'Say it' }).click()
    const asked = threadAbout(orla, 'ENDA 310')
    await expect(asked).toContainText('Is it hard?')
    await asked.getByRole('button', { name: 'Answer about ENDA 310' }).click()
    await asked.getByRole('textbox').fill('Fair, with STAT 212 fresh in mind.')
    await asked.getByRole('textbox').press('Control+Enter')
    await expect(threadAbout(imke, 'ENDA 310')).toContainText('Fair, with STAT 212 fresh in mind.')
    await threadAbout(imke, 'ENDA 310').getByRole('button', { name: 'Settle: ENDA 310' }).click()
    await expect(threadAbout(orla, 'ENDA 310')).toContainText('settled by Imke Varga, 2 remarks')
  })

  await test.step('what was agreed is written down and ticked off by the other', async () => {
    await orla.getByRole('button', { name: 'Add a line' }).click()
    await orla.getByRole('textbox', { name: 'what', exact: true }).fill('Send the hours of coaching')
    await orla.getByLabel('by when').fill('2027-04-20')
    await orla.getByRole('button', { name: 'Add it' }).click()
    await imke.getByRole('checkbox', { name: 'Send the hours of coaching: done' }).check()
    await expect(orla.getByRole('listitem').filter({ hasText: 'Send the hours of coaching' })).toContainText(
      'done 9 Apr'
    )
  })

  await test.step('not yet, with what is missing; asked again with a note', async () => {
    await review(orla).getByRole('button', { name: 'Not yet, say why' }).click()
    await review(orla).getByRole('textbox', { name: 'what is missing' }).fill('Look at the load first.')
    await review(orla).getByRole('button', { name: 'Say not yet' }).click()
    await expect(review(imke)).toContainText('Not yet, Orla Denholt')
    await expect(review(imke)).toContainText('“Look at the load first.”')
    await review(imke).getByRole('button', { name: 'Ask again' }).click()
    await review(imke).getByRole('textbox').fill('I looked: it fits.')
    await wellMade(imke, 'asking for a review')
    await review(imke).getByRole('button', { name: 'Ask for it' }).click()
    await expect(review(orla)).toContainText('“I looked: it fits.”')
  })

  await test.step('signed off within a range and on a condition', async () => {
    await review(orla).getByRole('button', { name: 'Add a condition' }).click()
    await choose(orla, 'which course', 'SOIL 220')
    await choose(orla, 'rule', 'not both, this and')
    await choose(orla, 'the other one', 'MATH 231')
    await review(orla).getByRole('button', { name: 'Add the condition' }).click()
    await review(orla).getByRole('spinbutton', { name: 'Credits at least' }).fill('6')
    await review(orla).getByRole('spinbutton', { name: 'Credits at most' }).fill('40')
    await expect(review(orla).getByRole('alert')).toContainText('18 at most')
    await review(orla).getByRole('spinbutton', { name: 'Credits at most' }).fill('10')
    await review(orla).getByRole('button', { name: 'Sign off Autumn 2027' }).click()
    await expect(review(imke)).toContainText(
      'Signed off by Orla Denholt on 9 Apr, 6 to 10 credits, on condition: not both SOIL 220 and MATH 231'
    )
  })

  await test.step('registered within the conditions, refused outside of them', async () => {
    await setClock(imke, OPENS)
    await imke.goto('/students/1/register')
    await expect(imke.getByText('open now')).toBeVisible()
    await expect(imke.getByText('6 to 10 credits, on condition')).toBeVisible()
    await imke
      .getByRole('button', { name: /^Register \d/ })
      .first()
      .click()
    await expect(imke.getByText('on a condition: not both SOIL 220 and MATH 231').first()).toBeVisible()
    await expect(imke.getByText('your advisor signed off up to 10').first()).toBeVisible()
  })
  for (const page of [imke, orla]) await leave(page)
})

test('what advisors say among each other is in nothing that a student is sent @long', async ({ site }) => {
  const nell = await enter(site, 'nell.fairweather')
  const secret = 'the lantern is lit'
  const said = await nell.request.post('/api/students/1/remarks', {
    data: { to: 'matter', about: { is: 'route', key: null }, advisorsOnly: true, text: secret }
  })
  expect(said.ok(), await said.text()).toBe(true)
  const others = [secret, 'Coaching pays her rent']
  const crawl = async (page: Page) => {
    const found: string[] = []
    for (const line of Object.keys(ACCESS)) {
      const [method, pattern] = line.split(' ') as [string, string]
      if (method !== 'GET' || pattern === '/api/news') continue
      const path = pattern.replace(/:(\w+)/g, (_, name: string) => (name === 'code' ? 'AU27' : '1'))
      const answer = await page.request.get(`${path}?term=AU27`)
      const text = await answer.text()
      for (const one of others) if (text.includes(one)) found.push(`${line}: ${one}`)
    }
    return found
  }
  const imke = await enter(site, 'imke.varga')
  expect(await crawl(imke)).toEqual([])
  // The same crawl finds it where it is.
  const orla = await enter(site, 'orla.denholt')
  expect(await crawl(orla)).toEqual(others.map((one) => `GET /api/students/:id: ${one}`))
  await orla.goto('/students/1/route')
  await expect(orla.getByText(secret)).toBeVisible()
  await imke.goto('/students/1/route')
  await expect(imke.getByRole('heading', { name: 'The talk' })).toBeVisible()
  await expect(imke.getByRole('heading', { name: 'Advisors only' })).toHaveCount(0)
  for (const page of [imke, orla, nell]) await leave(page)
})

test('the answer to a review is given on a phone @long', async ({ site }) => {
  const imke = await enter(site, 'imke.varga')
  const asked = await imke.request.post('/api/students/1/review', {
    data: { term: 'AU27', note: 'as it is' }
  })
  expect(asked.ok()).toBe(true)
  const orla = await enter(site, 'orla.denholt', PHONE)
  await orla.goto('/students/1/route')
  await settled(orla)
  await orla.getByRole('button', { name: 'Review of Autumn 2027 asked' }).click()
  await review(orla).getByRole('button', { name: 'Not yet, say why' }).click()
  await review(orla).getByRole('textbox', { name: 'what is missing' }).fill('A course less, please.')
  await wellMade(orla, 'a review on a phone')
  expect(await orla.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await review(orla).getByRole('button', { name: 'Say not yet' }).click()
  await expect(review(orla)).toContainText('“A course less, please.”')
  for (const page of [imke, orla]) await leave(page)
})

test('clear terms are signed off together, one left out, and taken back in one step @long', async ({
  site
}) => {
  const orla = await enter(site, 'orla.denholt')
  const desk = (await (await orla.request.get('/api/desk')).json()) as { rows: Record<string, number>[] }
  const stops = ['findings', 'holds', 'requestsAsked', 'unread']
  const free = desk.rows.filter((row) => row.planned! > 0 && stops.every((one) => row[one] === 0))
  for (const row of free.slice(0, 3))
    await site.query(
      `insert into review (student_id, term_id, asked_at) select ${row.id}, id, '2027-04-08 14:00' from term where code = 'AU27'`
    )
  const logged = async (action: string) =>
    (await site.query<{ n: number }>(`select count(*) as n from event_log where action = '${action}'`))[0]!.n
  const [given, withdrawn] = [await logged('signOff.given'), await logged('signOff.withdrawn')]
  await orla.goto('/desk')
  const start = orla.getByRole('button', { name: /^Sign off \d+ clear ones$/ })
  await expect(start).toBeVisible()
  const all = Number(/\d+/.exec((await start.textContent())!)![0])
  expect(all).toBeGreaterThanOrEqual(3)
  await start.click()
  await orla
    .getByRole('checkbox', { name: /^Sign off / })
    .first()
    .uncheck()
  await wellMade(orla, 'signing off together')
  await orla.getByRole('button', { name: `Sign off ${all - 1}`, exact: true }).click()
  await expect(orla.getByText(`Autumn 2027 is signed off for ${all - 1} students.`)).toBeVisible()
  expect(await logged('signOff.given')).toBe(given + all - 1)
  await expect(orla.getByRole('button', { name: /^Sign off 1 clear one$/ })).toBeVisible()
  await orla.getByRole('button', { name: 'Take it back' }).click()
  await expect(orla.getByText(`Autumn 2027 is signed off no more for ${all - 1} students.`)).toBeVisible()
  expect(await logged('signOff.withdrawn')).toBe(withdrawn + all - 1)
  await leave(orla)
})

test('the desk says why and by when, in an order that is explained; some are written to at once @long', async ({
  site
}) => {
  const orla = await enter(site, 'orla.denholt')
  await orla.goto('/desk')
  await expect(orla.getByText('By the most urgent reason, in the order of the boxes above')).toBeVisible()
  await orla.getByRole('button', { name: /^\d+ asked for review$/ }).click()
  const download = orla.waitForEvent('download')
  await orla.getByRole('button', { name: 'Save as a table (CSV)' }).click()
  const table = await readFile((await (await download).path())!, 'utf8')
  expect(table).toMatch(/^\ufeffStudent,Programs,Standing,Reasons/)
  expect(table).toMatch(/Hanne Petrossian,.*review asked/)
  const start = orla.getByRole('button', { name: /^Write to \d+ students?$/ })
  const all = Number(/\d+/.exec((await start.textContent())!)![0])
  await start.click()
  await orla.getByLabel('what you want to say').fill('{frist}, we should talk.')
  await expect(orla.getByRole('alert')).toHaveText('There is no field {frist}.')
  await orla.getByLabel('what you want to say').fill('{first}, {term} comes: we should talk.')
  await expect(orla.getByText(/reads: \w+, Autumn 2027 comes: we should talk\.$/)).toBeVisible()
  for (const box of await orla.getByRole('checkbox', { name: /^Write to / }).all())
    if ((await box.getAttribute('aria-label')) !== 'Write to Hanne Petrossian') await box.uncheck()
  await wellMade(orla, 'writing to several')
  expect(all).toBeGreaterThan(1)
  await orla.getByRole('button', { name: 'Send to 1', exact: true }).click()
  await expect(orla.getByText('Written to 1 student.')).toBeVisible()
  await leave(orla)
  const hanne = await enter(site, 'hanne.petrossian')
  await hanne.goto('/students/7/route')
  await expect(threadAbout(hanne, 'the whole route').last()).toContainText(
    'Hanne, Autumn 2027 comes: we should talk.'
  )
  await leave(hanne)
})
