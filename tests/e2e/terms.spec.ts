/** A term on its way: the next year made from the last one, dates set, offer and openings copied, published, registered in. */
import type { Page } from '@playwright/test'
import { clean, settled, wellMade } from './axe'
import { choose, enter, expect, leave, PHONE, setClock, test } from './site'

test.use({ scenario: 'terms' })

const open = async (page: Page, path: string) => {
  await page.goto(path)
  await settled(page)
}

test('the next year is made from the last one, looked at before, and a term of it taken away @long', async ({
  site
}) => {
  const edda = await enter(site, 'edda.whitlock')
  await open(edda, '/terms')
  await edda.getByRole('button', { name: 'Make the next year' }).click()
  const dialog = edda.getByRole('dialog', { name: 'The next year, as the last one was' })
  await expect(dialog.getByRole('row')).toHaveCount(4)
  await expect(dialog.getByRole('row', { name: /^Autumn 2031/ })).toContainText('Mon 1 Sep 2031')
  await wellMade(edda, 'making the next year')
  await dialog.getByRole('button', { name: 'Make them' }).click()
  await expect(edda.getByRole('heading', { name: 'Summer 2031', level: 1 })).toBeVisible()
  await edda.getByRole('button', { name: 'Take the term away' }).click()
  await expect(edda.getByRole('heading', { name: 'Terms', level: 1 })).toBeVisible()
  await expect(edda.getByRole('link', { name: 'Autumn 2031' })).toBeVisible()
  await expect(edda.getByRole('link', { name: 'Summer 2031' })).toHaveCount(0)

  await edda.getByRole('button', { name: 'Add a term' }).click()
  const alone = edda.getByRole('dialog', { name: 'A term by itself' })
  await alone.getByLabel('name', { exact: true }).fill('Winter 2032')
  await alone.getByLabel('code, such as AU27').fill('AU31')
  await choose(edda, 'season', 'winter')
  await alone.getByLabel('first day').fill('2032-01-05')
  await alone.getByLabel('last day').fill('2032-01-10')
  await alone.getByRole('button', { name: 'Make it' }).click()
  await expect(alone.getByText('This has to be a week after the first day or later.')).toBeVisible()
  await alone.getByLabel('last day').fill('2032-01-16')
  await expect(alone.getByText('This has to be a week after the first day or later.')).toHaveCount(0)
  await alone.getByRole('button', { name: 'Make it' }).click()
  await expect(alone.getByText('has to be a code that no other term has')).toBeVisible()
  await alone.getByLabel('code, such as AU27').fill('WI32')
  await alone.getByRole('button', { name: 'Make it' }).click()
  await expect(edda.getByRole('heading', { name: 'Winter 2032', level: 1 })).toBeVisible()
  await leave(edda)
})

test('dates are set: what is wrong stands at its field, what is saved holds @long', async ({ site }) => {
  const edda = await enter(site, 'edda.whitlock')
  await open(edda, '/terms/SU28')
  const form = edda.getByRole('form', { name: 'Dates and rules' })
  const save = form.getByRole('button', { name: 'Save the dates' })
  await expect(save).toBeDisabled()
  await form.getByLabel('lines close').fill('2028-07-01T00:00')
  await save.click()
  await expect(form.getByText('This has to be no later than the end of adding.')).toBeVisible()
  await expect(form.getByLabel('lines close')).toBeFocused()
  await wellMade(edda, 'a term with a fault')
  await form.getByRole('button', { name: 'Leave them as they were' }).click()
  await form.getByRole('button', { name: 'Add a day' }).click()
  await form.getByLabel('day 2 without classes').fill('2028-06-19')
  await form.getByLabel('day 2: called').fill('Harbour day')
  await form.getByLabel('most credits').fill('10')
  await save.click()
  await expect(edda.getByText('Summer 2028: saved.')).toBeVisible()
  await open(edda, '/terms/SU28')
  await expect(form.getByLabel('day 1 without classes')).toHaveValue('2028-06-19')
  await expect(form.getByLabel('most credits')).toHaveValue('10')

  // Somebody else saves meanwhile: nothing of theirs is written over.
  const other = await enter(site, 'edda.whitlock')
  await open(other, '/terms/SU28')
  const theirs = other.getByRole('form', { name: 'Dates and rules' })
  await theirs.getByLabel('most credits').fill('11')
  await theirs.getByRole('button', { name: 'Save the dates' }).click()
  await expect(other.getByText('Summer 2028: saved.')).toBeVisible()
  await form.getByLabel('most credits').fill('12')
  await save.click()
  await expect(form.getByText('was changed meanwhile, so your change was not made')).toBeVisible()
  await expect(form.getByLabel('most credits')).toHaveValue('11')
  for (const page of [edda, other]) await leave(page)
})

test('a term is filled, opened, published and registered in @long', async ({ site }) => {
  const edda = await enter(site, 'edda.whitlock')
  const imke = await enter(site, 'imke.varga')
  const orla = await enter(site, 'orla.denholt')
  await open(edda, '/terms/SP28')
  await expect(edda.getByText('No sections yet.')).toBeVisible()
  await expect(edda.getByRole('button', { name: 'See whom it concerns' })).toBeDisabled()
  await edda.getByRole('button', { name: 'Look at it' }).click()
  await expect(edda.getByText('would be made, at the same hours')).toBeVisible()
  await edda.getByRole('button', { name: /^Copy \d+ sections/ }).click()
  await expect(edda.getByText(/sections of \d+ courses copied/)).toBeVisible()
  await edda.getByRole('button', { name: 'Open it as many weeks before' }).click()
  await expect(edda.getByText('5 openings made.')).toBeVisible()
  await edda.getByRole('button', { name: 'Open it for a group' }).click()
  const form = edda.getByRole('form', { name: 'A new opening' })
  await form.getByLabel('for whom, as all read it').fill('Imke Varga, by the registrar')
  await form.getByLabel('opens, campus time').fill('2027-09-01T07:00')
  await form.getByLabel('or for one student: number').fill('H204007')
  await wellMade(edda, 'a new opening')
  await form.getByRole('button', { name: 'Open it', exact: true }).click()
  await expect(edda.getByRole('listitem').filter({ hasText: 'by the registrar' })).toContainText('1 student')
  const prices = edda.getByRole('form', { name: 'Prices' })
  await prices.getByRole('button', { name: 'Add a fee' }).click()
  await prices.getByLabel('fee 3: called').fill('Field station')
  await prices.getByLabel('fee 3: amount').fill('12.50')
  await prices.getByRole('button', { name: 'Save the prices' }).click()
  await expect(edda.getByText('Spring 2028: prices saved.')).toBeVisible()
  await edda.getByRole('button', { name: 'See whom it concerns' }).click()
  await expect(edda.getByText('students planned something for it and are told')).toBeVisible()
  await clean(edda, 'a term before it is published')

  await open(imke, '/students/1/route')
  await edda.getByRole('button', { name: 'Publish Spring 2028 for good' }).click()
  await expect(edda.getByText(/^Spring 2028 is published\. \d+ students told\./)).toBeVisible()
  await expect(edda.getByText('Published: students see its sections and seats.')).toBeVisible()

  // The student's page knows of it without being loaded anew: Week and Register have the term.
  await imke.getByRole('link', { name: /^Register/ }).click()
  const { route } = (await (await imke.request.get('/api/students/1')).json()) as {
    route: { courses: { course: string; term: string }[] }
  }
  const offer = (await (await imke.request.get('/api/terms/SP28/offer')).json()) as {
    code: string
    course: string
    parent: string | null
    officeOnly: boolean
    permissionNeeded: boolean
    onlyFor: unknown
  }[]
  const planned = new Set(route.courses.filter((one) => one.term === 'SP28').map((one) => one.course))
  const parents = new Set(offer.map((one) => one.parent))
  const section = offer.find(
    (one) =>
      planned.has(one.course) &&
      one.parent === null &&
      !parents.has(one.code) &&
      !one.officeOnly &&
      !one.permissionNeeded &&
      !one.onlyFor
  )!
  const done = async (answer: Promise<{ ok: () => boolean; text: () => Promise<string> }>) =>
    expect((await answer).ok(), await (await answer).text()).toBe(true)
  const picks = [{ course: section.course, sections: [section.code] }]
  await done(imke.request.post('/api/students/1/picks', { data: { term: 'SP28', picks } }))
  await done(imke.request.post('/api/students/1/agreement', { data: await agreementOf(imke) }))
  await done(orla.request.post('/api/students/1/sign-off', { data: { term: 'SP28' } }))
  await setClock(edda, '2027-09-01T11:00:00.000Z')
  await imke.goto('/students/1/register')
  await settled(imke)
  await imke.getByRole('button', { name: 'go to Spring 2028' }).click()
  await imke.getByRole('button', { name: 'Register 1', exact: true }).click()
  await expect
    .poll(async () => {
      const { held } = (await (await imke.request.get('/api/students/1')).json()) as {
        held: { section: string; term: string }[]
      }
      return held.filter((one) => one.term === 'SP28').map((one) => one.section)
    })
    .toEqual([section.code])
  for (const page of [edda, imke, orla]) await leave(page)
})

async function agreementOf(page: Page): Promise<{ term: string; text: string }> {
  const { terms } = (await (await page.request.get('/api/catalog')).json()) as {
    terms: { code: string; agreement: string }[]
  }
  return { term: 'SP28', text: terms.find((one) => one.code === 'SP28')!.agreement }
}

test('a term is looked at on a phone @long', async ({ site }) => {
  const edda = await enter(site, 'edda.whitlock', PHONE)
  await open(edda, '/terms')
  await wellMade(edda, 'terms on a phone')
  await open(edda, '/terms/AU28')
  await wellMade(edda, 'a term on a phone')
  await leave(edda)
})
