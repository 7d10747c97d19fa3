import { clean } from './axe'
import { prepare } from './prepare'
import { enter, expect, leave, setClock, test } from './site'

test.use({ scenario: 'path' })

test('from a need of the degree to a registered seat, as student and advisor', async ({ site }) => {
  const imke = await enter(site, 'imke.varga')
  await imke.goto('/')
  await expect(imke).toHaveURL(/students\/1\/today$/)
  await expect(imke.getByText('Autumn 2027 is not signed off yet')).toBeVisible()

  await test.step('Degree: a need, the courses that meet it, one onto the route', async () => {
    await imke.getByRole('link', { name: /^Degree/ }).click()
    await imke
      .getByRole('button', { name: /^1 course needed · \d+ courses fit/ })
      .first()
      .click()
    await imke.getByRole('button', { name: 'Add SPCH 101 to Autumn 2027' }).click()
    await expect(imke.getByText('Add SPCH 101 to Autumn 27: done.')).toBeVisible()
  })

  await test.step('Route: too much for one term, settled by the way out that is offered', async () => {
    await imke.getByRole('link', { name: /^Route/ }).click()
    await expect(imke.getByText('holds 20 credits, 2 over the limit of 18.')).toBeVisible()
    await imke.locator('[data-course="ENDA 325"]').click()
    await imke.getByRole('menuitem', { name: 'Take off the route' }).click()
    await expect(imke.getByText('over the limit')).toBeHidden()
    await imke.getByRole('button', { name: 'Add STAT 330 to Spring 28' }).click()
    await expect(imke.getByRole('heading', { name: 'No findings' })).toBeVisible()
  })

  await test.step('Week: options with what they clash with, and a pick', async () => {
    await imke.getByRole('link', { name: /^Week/ }).click()
    const speaking = imke.locator('section.course', { hasText: 'SPCH 101' })
    await expect(speaking.getByText('no section yet')).toBeVisible()
    await speaking.locator('.option:not(.clash)').first().click()
    await expect(speaking.getByText('picked')).toBeVisible()
    await expect(imke.getByRole('link', { name: /^Week/ })).toContainText('5 of 5 settled')
  })

  await test.step('Register: closed, and the button says why', async () => {
    await imke.getByRole('link', { name: /^Register/ }).click()
    await expect(imke.getByText('Registration opens for you on Mon 12 Apr 2027, 7:00 am.')).toBeVisible()
    const button = imke.getByRole('button', { name: 'Register 5 at opening' })
    await expect(button).toBeDisabled()
    await button.click({ force: true })
    expect(
      await site.query(
        "select id from receipt where term_id = (select id from term where code = 'AU27') and student_id = 1"
      )
    ).toEqual([])
  })

  await test.step('Register: the terms of registration are read and accepted, once', async () => {
    await site.query('delete from agreement where student_id = 1')
    await imke.reload()
    await imke.getByRole('button', { name: 'Read and accept' }).click()
    await expect(imke.getByRole('dialog', { name: 'Terms of registration, Autumn 2027' })).toBeVisible()
    await clean(imke, 'terms of registration')
    await imke.getByRole('button', { name: 'Accept these terms' }).click()
    await expect(
      imke.getByRole('listitem').filter({ hasText: 'Terms of registration accepted 9 Apr' })
    ).toBeVisible()
    const [kept] = await site.query<{ text: string; at: Date }>(
      'select a.text, a.accepted_at as at from agreement a join term t on t.id = a.term_id and t.agreement = a.text where a.student_id = 1'
    )
    expect(kept!.text).toContain('what it costs')
    await imke.reload()
    await expect(imke.getByRole('button', { name: 'Read and accept' })).toHaveCount(0)
  })

  await test.step('Advisor: the desk, the route, the sign-off', async () => {
    const orla = await enter(site, 'orla.denholt')
    await orla.goto('/')
    await expect(orla.getByRole('heading', { name: /^Your desk/ })).toBeVisible()
    await orla.getByRole('link', { name: 'Review Imke Varga' }).click()
    await expect(orla.getByText('Viewing Imke Varga, as their advisor')).toBeVisible()
    await orla.getByRole('button', { name: 'Sign off Autumn 2027' }).click()
    await expect(orla.getByText('signed off by Orla Denholt on 9 Apr, 13 to 18 credits')).toBeVisible()
    await leave(orla)
  })

  await test.step('Register: the clock moves to the opening, the run registers line by line', async () => {
    await imke.reload()
    await expect(imke.getByText('Advisor sign-off Orla Denholt')).toBeVisible()
    await imke.getByRole('button', { name: /^Campus clock/ }).click()
    await imke.getByRole('button', { name: 'Jump to the opening' }).click()
    await expect(imke.getByText('open now')).toBeVisible()
    await imke.getByRole('checkbox', { name: 'Register WRIT 215' }).uncheck()
    await imke.getByRole('button', { name: 'Register 4', exact: true }).click()
    await expect(imke.getByText('4 lines of 4 went through.')).toBeVisible()
    await expect(imke.getByRole('link', { name: /^Register/ })).toContainText('open, 1 to register')
  })

  await test.step('Week: the ribbon shows registered', async () => {
    await imke.getByRole('link', { name: /^Week/ }).click()
    await expect(imke.locator('.bar.registered', { hasText: 'ENDA 310' })).toHaveCount(2)
    await expect(imke.locator('.bar.picked', { hasText: 'WRIT 215' })).toHaveCount(2)
  })

  await test.step('MariaDB agrees: seats, registrations and the log', async () => {
    const held = await site.query<{ course: string; number: string; taken: number; held: number }>(
      `select c.code as course, s.number, s.taken, (select count(*) from registration x where x.section_id = s.id) as held
       from registration r join section s on s.id = r.section_id join course c on c.id = s.course_id join term t on t.id = s.term_id
       where r.student_id = 1 and t.code = 'AU27' order by c.code, s.number`
    )
    expect(held.map((row) => `${row.course}-${row.number}`)).toEqual([
      'ENDA 310-01',
      'MATH 231-01',
      'SOIL 220-01',
      'SOIL 220-01A',
      expect.stringMatching(/^SPCH 101-\d\d$/)
    ])
    for (const row of held) expect(row.taken).toBe(row.held)
    const events = await site.query<{ action: string; n: number }>(
      `select action, count(*) as n from event_log where student_id = 1 and at >= '2027-04-01' group by action order by action`
    )
    const counts = Object.fromEntries(events.map((row) => [row.action, row.n]))
    expect(counts).toMatchObject({
      'registration.made': 4,
      'route.changed': 3,
      'signOff.given': 1,
      'week.picked': 1
    })
    expect(counts['record.read']).toBeGreaterThan(0)
  })
  await leave(imke)
})

test('a run whose answer is lost is asked for again, over a reload too, and is one run', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await page.goto('/students/1/register')
  let lost = 0
  await page.route('**/api/students/1/runs', async (route) => {
    if (lost++ > 1) return route.continue()
    // It reaches the server; its answer reaches nobody.
    await route.fetch()
    await route.abort()
  })
  // What was left out of the last run is so until it is chosen again.
  await page.getByRole('checkbox', { name: 'Register WRIT 215' }).check()
  await page.getByRole('button', { name: 'Register 1', exact: true }).click()
  await expect(page.getByText('it is not known yet what is registered')).toBeVisible()
  await page.reload()
  await expect(page.getByText('1 line of 1 went through.')).toBeVisible({ timeout: 20_000 })
  await expect(page.getByText('it is not known yet')).toBeHidden()
  expect(lost).toBeGreaterThan(1)
  const [told] = await site.query<{ receipts: number; seats: number }>(
    `select (select count(*) - 1 from receipt r join term t on t.id = r.term_id where r.student_id = 1 and t.code = 'AU27') as receipts,
      (select count(*) from registration r join section s on s.id = r.section_id join course c on c.id = s.course_id
        join term t on t.id = s.term_id where r.student_id = 1 and t.code = 'AU27' and c.code = 'WRIT 215') as seats`
  )
  expect(told).toEqual({ receipts: 1, seats: 1 })
  await leave(page)
})

test('a lab that is held is exchanged for another, and given up only for it @long', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await page.goto('/students/1/week')
  const soil = page.locator('section.course', {
    has: page.locator('header', { hasText: 'SOIL 220' })
  })
  await expect(soil.getByText('You hold this seat.')).toBeVisible()
  await soil.getByRole('button', { name: /^Exchange it/ }).click()
  await expect(soil.locator('.option', { hasText: 'your seat' })).toHaveCount(1)
  await soil.getByRole('button', { pressed: false }).filter({ hasText: 'Larch 1' }).first().click()
  await expect(
    page.getByText('SOIL 220: you hold lab 01A until lab 01B is registered instead.')
  ).toBeVisible()
  await expect(page.locator('.bar.picked', { hasText: 'SOIL 220 lab' })).toHaveCount(1)
  await clean(page, 'exchange')

  await page.getByRole('link', { name: /^Today/ }).click()
  await expect(page.getByText('SOIL 220 is to be exchanged')).toBeVisible()
  await page.goBack()

  // The seat stays after all; then it is exchanged.
  await soil.getByRole('button', { name: 'Keep the seat' }).click()
  await expect(soil.getByText('You hold this seat.')).toBeVisible()
  await soil.getByRole('button', { name: /^Exchange it/ }).click()
  await soil.getByRole('button', { pressed: false }).filter({ hasText: 'Larch 1' }).first().click()
  await page.getByRole('link', { name: /^Register/ }).click()
  const line = page.getByRole('row', { name: /SOIL 220/ })
  await expect(line).toContainText(/instead of SOIL 220-01A, which you hold until/)
  await page.getByRole('button', { name: 'Exchange 1', exact: true }).click()
  await expect(page.locator('.receipt li', { hasText: 'SOIL 220' })).toContainText('exchanged')
  const held = await site.query<{ number: string; taken: number; held: number }>(
    `select s.number, s.taken, (select count(*) from registration x where x.section_id = s.id) as held
     from section s join course c on c.id = s.course_id join term t on t.id = s.term_id
     join registration r on r.section_id = s.id and r.student_id = 1
     where t.code = 'AU27' and c.code = 'SOIL 220' order by s.number`
  )
  expect(held.map((row) => row.number)).toEqual(['01', '01B'])
  for (const row of held) expect(row.taken).toBe(row.held)
  await leave(page)
})

test('a course is lifted, shown where it may go, and put down with the keyboard alone @long', async ({
  site
}) => {
  const page = await enter(site, 'priya.castellane')
  await setClock(page, '2027-04-09T13:40:00.000Z')
  await page.goto('/')
  await expect(page.getByRole('heading', { name: /^Friday/ })).toBeVisible()
  await page.keyboard.press('g')
  await page.keyboard.press('r')
  await expect(page).toHaveURL(/route$/)
  const flood = page.locator('[data-course="HYDR 330"]')
  await flood.focus()
  await page.keyboard.press('Space')
  await page.keyboard.press('ArrowRight')
  await expect(page.locator('td.illegal .reason').first()).toHaveText('No section in Autumn 27.')
  await page.keyboard.press('Escape')
  await flood.focus()
  await page.keyboard.press('Space')
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('Space')
  await expect(page.getByText('Move HYDR 330 to Autumn 27: done.')).toBeVisible()
  await expect(page.getByText(/has no section in Autumn 27|does not usually run in Autumn 27/)).toBeVisible()
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(page.getByText(/has no section in Autumn 27/)).toBeHidden()
  await leave(page)
})

test('two browsers go for the last seat: one gets it, the other is told', async ({ site }) => {
  const [section] = await site.query<{ id: number; code: string }>(
    `select s.id, s.code from section s join course c on c.id = s.course_id join term t on t.id = s.term_id
     where c.code = 'ENDA 325' and t.code = 'AU27' and s.mode = 'online'`
  )
  await site.query('update section set capacity = taken + 1 where id = ?', [section!.id])
  const runners = await Promise.all(['hanne.petrossian', 'priya.castellane'].map((name) => enter(site, name)))
  const orla = await enter(site, 'orla.denholt')
  for (const page of runners) {
    await prepare(page, orla, 'ENDA 325', section!.code)
    await expect(page.getByRole('button', { name: /^Register 1$/ })).toBeEnabled()
  }
  await Promise.all(runners.map((page) => page.getByRole('button', { name: /^Register 1$/ }).click()))
  const outcomes = await Promise.all(
    runners.map(async (page) => {
      const line = page.locator('.receipt li', { hasText: 'ENDA 325' })
      await expect(line).toBeVisible()
      return (await line.innerText()).includes('not registered') ? 'refused' : 'registered'
    })
  )
  expect(outcomes.sort()).toEqual(['refused', 'registered'])
  const loser = (await runners[0]!.getByText('not registered').count()) ? runners[0]! : runners[1]!
  await expect(loser.locator('.receipt')).toContainText('The lecture is full')
  await expect(loser.locator('.receipt').getByRole('link', { name: 'Pick another section' })).toBeVisible()
  const [after] = await site.query<{ taken: number; capacity: number; held: number }>(
    'select taken, capacity, (select count(*) from registration r where r.section_id = s.id) as held from section s where id = ?',
    [section!.id]
  )
  expect(after!.taken).toBe(after!.capacity)
  expect(after!.held).toBe(after!.capacity)
  for (const page of [...runners, orla]) await leave(page)
})
