import type { Page } from '@playwright/test'
import { clean, settled, wellMade } from './axe'
import { choose, enter, expect, leave, PHONE, setClock, test } from './site'

test.use({ scenario: 'appointments' })

const meets = (page: Page) => page.getByRole('region', { name: 'Appointments' })
const TIME = 'Thu 15 Apr 2027, 1:00 pm to 1:30 pm'

test('a time is booked, moved, accepted and cancelled between two people; it is in both calendars @long', async ({
  site
}) => {
  const imke = await enter(site, 'imke.varga')
  const orla = await enter(site, 'orla.denholt')
  await imke.goto('/students/1/route')
  await settled(imke)
  await orla.goto('/hours')
  await expect(orla.getByText('Nobody has booked a time.')).toBeVisible()
  await clean(orla, 'hours')

  await test.step('booked from what is offered', async () => {
    await meets(imke).getByRole('button', { name: 'Book a time' }).click()
    await meets(imke).getByRole('button', { name: 'Thursday 15 Apr, 1:00 pm' }).click()
    await meets(imke)
      .getByRole('textbox', { name: /^what it is about/ })
      .fill('The minor')
    await clean(imke, 'booking a time')
    await meets(imke).getByRole('button', { name: 'Book it' }).click()
    await expect(meets(imke)).toContainText(`${TIME} Orla Denholt, Slate 118`)
    const comes = orla.getByRole('region', { name: 'Who comes' })
    await expect(comes).toContainText(TIME)
    await expect(comes).toContainText('Imke Varga')
    await expect(comes).toContainText('The minor')
  })

  await test.step('in both calendars, at private addresses', async () => {
    await orla.getByRole('button', { name: 'Make an address' }).click()
    const address = await orla.locator('code').textContent()
    const made = await imke.request.post('/api/students/1/calendar-address', { data: {} })
    const { key } = (await made.json()) as { key: string }
    for (const [path, name] of [
      [address!, 'Imke Varga'],
      [`/api/calendars/${key}.ics`, 'Orla Denholt']
    ] as const) {
      const text = await (await imke.request.get(path)).text()
      expect(text).toContain(`SUMMARY:Appointment: ${name}`)
      expect(text).toContain('DTSTART:20270415T170000Z')
    }
  })

  await test.step('moved by the advisor, it is asked again; the student accepts on Today’s word', async () => {
    await orla.getByRole('link', { name: 'Imke Varga' }).click()
    await meets(orla)
      .getByRole('button', { name: `Move: ${TIME}` })
      .click()
    await orla.getByLabel('day', { exact: true }).fill('2027-04-13')
    await orla.getByLabel('from', { exact: true }).fill('09:00')
    await orla.getByRole('button', { name: 'Move it there' }).click()
    await expect(meets(orla)).toContainText('invited, not answered')
    await expect(meets(imke)).toContainText('you are invited')
    await imke.goto('/students/1/today')
    await expect(imke.getByText('Orla Denholt invites you')).toBeVisible()
    await imke.getByRole('button', { name: 'Answer it' }).click()
    await meets(imke)
      .getByRole('button', { name: /^Accept: Tue 13 Apr/ })
      .click()
    await expect(meets(orla)).toContainText('Tue 13 Apr 2027, 9:00 am to 9:30 am')
    await expect(meets(orla)).not.toContainText('not answered')
    await setClock(orla, '2027-04-12T12:00:00Z')
    await imke.goto('/students/1/today')
    await expect(imke.getByRole('definition').filter({ hasText: '9:00 am Orla Denholt' })).toBeVisible()
  })

  await test.step('cancelled in a word', async () => {
    await imke.goto('/students/1/route')
    await imke.setViewportSize(PHONE)
    await meets(imke)
      .getByRole('button', { name: /^Cancel: Tue 13 Apr/ })
      .click()
    await wellMade(imke, 'cancelling on a phone')
    await meets(imke).getByRole('button', { name: 'Cancel the appointment' }).click()
    await expect(meets(imke)).toContainText('None ahead.')
    await expect(meets(orla)).toContainText('None ahead.')
  })
  await leave(imke)
  await leave(orla)
})

test('an advisor offers other hours, goes away, invites, and notes a talk @long', async ({ site }) => {
  const orla = await enter(site, 'orla.denholt')
  await orla.goto('/hours')
  await settled(orla)
  await choose(orla, 'when', 'every Friday')
  await orla.getByLabel('from', { exact: true }).fill('11:00')
  await orla.getByLabel('to', { exact: true }).fill('11:10')
  await orla.getByLabel('room or link').fill('Fern 2')
  await orla.getByRole('button', { name: 'Offer it' }).click()
  await expect(orla.getByRole('alert')).toHaveText('The end has to be 30 minutes or more after the start.')
  await orla.getByLabel('to', { exact: true }).fill('12:00')
  await orla.getByRole('button', { name: 'Offer it' }).click()
  await expect(orla.getByRole('row', { name: /every Friday/ })).toContainText('2 of 30 min')
  await orla.getByLabel('first day away').fill('2027-04-13')
  await orla.getByLabel('last day away').fill('2027-04-16')
  await orla.getByRole('button', { name: 'Add it' }).click()
  await expect(orla.getByText('Tue 13 Apr 2027 to Fri 16 Apr 2027')).toBeVisible()
  await orla.setViewportSize(PHONE)
  await wellMade(orla, 'hours on a phone')

  await orla.setViewportSize({ width: 1280, height: 800 })
  await orla.goto('/students/1/route')
  await meets(orla).getByRole('button', { name: 'Invite' }).click()
  await orla.getByLabel('day', { exact: true }).fill('2027-04-19')
  await orla.getByLabel('from', { exact: true }).fill('08:30')
  await orla.getByLabel('room or link').fill('by video')
  await orla.getByLabel('what to bring').fill('the plan')
  await orla.getByRole('button', { name: 'Invite' }).last().click()
  await expect(meets(orla)).toContainText('To bring: the plan')
  await orla.getByRole('button', { name: 'Note a talk' }).click()
  await orla.getByRole('textbox', { name: 'what you spoke about' }).fill('The summer stays free.')
  await orla.getByRole('button', { name: 'Note it' }).click()

  const imke = await enter(site, 'imke.varga')
  await imke.goto('/students/1/route')
  await expect(imke.getByRole('region', { name: 'Spoken' })).toContainText('The summer stays free.')
  await meets(imke).getByRole('button', { name: 'Book a time' }).click()
  // The 13th to the 16th she is away; on Fridays she is there from the 23rd on.
  await expect(meets(imke).getByRole('button', { name: 'Tuesday 20 Apr, 1:00 pm' })).toBeVisible()
  await expect(meets(imke).getByRole('button', { name: /Thursday 15 Apr/ })).toHaveCount(0)
  await expect(meets(imke).getByRole('button', { name: 'Friday 23 Apr, 11:30 am' })).toBeVisible()
  await leave(imke)
  await leave(orla)
})
