import { clean } from './axe'
import { prepare } from './prepare'
import { enter, expect, go, leave, setClock, test } from './site'

test.use({ scenario: 'money' })

test('what is owed is paid in part, told twice, and the seat is given back with a receipt @long', async ({
  site
}) => {
  const [section] = await site.query<{ id: number; code: string }>(
    `select s.id, s.code from section s join course c on c.id = s.course_id join term t on t.id = s.term_id
     where c.code = 'ENDA 325' and t.code = 'AU27' and s.mode = 'online'`
  )
  const orla = await enter(site, 'orla.denholt')
  const hanne = await enter(site, 'hanne.petrossian')
  const student = await prepare(hanne, orla, 'ENDA 325', section!.code)
  const receipt = hanne.locator('.receipt')
  const account = hanne.getByRole('region', { name: /^(Owed|Nothing is owed|After the run)/ })
  await expect(account).toContainText('if all that is chosen goes through, due Mon 2 Aug 2027')
  await hanne.getByRole('button', { name: /^Register \d$/ }).click()
  await expect(receipt).toContainText('went through')
  await expect(account).toContainText('Owed by Mon 2 Aug 2027')
  await expect(account).toContainText('are given back on Tue 3 Aug 2027')
  await account.getByRole('button', { name: 'Pay a part' }).click()
  await account.getByLabel('Amount').fill('1,000')
  await account.getByRole('button', { name: 'Pay it' }).click()
  await expect(account).toContainText('This has to be an amount such as 500.00.')
  await account.getByLabel('Amount').fill('99999')
  await account.getByRole('button', { name: 'Pay it' }).click()
  await expect(account).toContainText('This has to be at most')
  await account.getByLabel('Amount').fill('500')
  await account.getByRole('button', { name: 'Pay it' }).click()
  await expect(account).toContainText('500.00 is paid.')
  await account.getByRole('button', { name: 'Read the statement' }).click()
  await expect(account.getByRole('listitem').filter({ hasText: 'Paid' })).toContainText('−500.00')
  await clean(hanne, 'owed')
  await go(hanne, `/students/${student}/degree/record`)
  const terms = hanne.getByRole('region', { name: 'Account' }).getByRole('listitem')
  await expect(terms.filter({ hasText: 'Autumn 2027' })).toContainText('owed by Mon 2 Aug 2027')
  await expect(terms.filter({ hasText: 'Autumn 2027' })).toContainText('500.00 paid')
  await terms.getByRole('button', { name: 'Pay it on Register' }).click()
  await expect(account).toContainText('Owed by Mon 2 Aug 2027')

  const held = () =>
    site.query('select id from registration where student_id = ? and section_id = ?', [student, section!.id])
  for (const day of ['2027-07-19', '2027-07-30', '2027-08-02']) {
    await setClock(hanne, `${day}T16:00:00.000Z`)
    expect(await held(), day).toHaveLength(1)
  }
  await hanne.goto(`/students/${student}/today`)
  await expect(
    hanne.getByText('Seats that are not paid for by then are given back on Tue 3 Aug 2027.')
  ).toBeVisible()
  await setClock(hanne, '2027-08-03T16:00:00.000Z')
  expect(await held()).toHaveLength(0)
  await expect(hanne.getByText('Seats of Autumn 2027 were given back')).toBeVisible()
  await hanne.getByRole('button', { name: 'See the receipt' }).click()
  await receipt.getByRole('button', { name: 'Read it' }).click()
  await expect(receipt).toContainText('It was not paid for by the due date, so the seat was given back.')
  await expect(account).toContainText('500.00 more is paid than is charged.')
  await leave(hanne)
  await leave(orla)
})
