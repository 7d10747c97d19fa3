/** Placing: the registrar sees who fits where, leaves somebody out, places the rest, and takes a seat back. */
import { clean, settled, wellMade } from './axe'
import { enter, expect, leave, PHONE, test } from './site'

test.use({ scenario: 'placing' })

test('students are placed from what they handed in, before the opening, and each receipt says so @long', async ({
  site
}) => {
  // Of three students: Imke Varga and two who come after her.
  await site.query(
    `delete from intention where student_id <> 1 and student_id not in (select * from (
       select distinct i.student_id from intention i join term t on t.id = i.term_id
       where t.code = 'AU27' and i.student_id > 100 order by 1 limit 2) some)`
  )
  const edda = await enter(site, 'edda.whitlock')
  await edda.goto('/terms/AU27')
  await settled(edda)
  await edda.getByRole('link', { name: 'Place students' }).click()
  await expect(edda.getByRole('combobox', { name: 'whom' })).toHaveValue(/Whoever handed in .* · 3/)
  const work = edda.getByRole('button', { name: 'Work out who fits where' })
  await work.click()
  await expect(edda.getByText(/3 students to place: 3 in nothing/)).toBeVisible()
  await expect(edda.getByRole('region', { name: 'Courses that are left' })).toContainText(
    'Registration opens for them'
  )

  for (const rule of ['the opening', 'the sign-off', 'the terms of registration'])
    await edda.getByLabel(rule, { exact: true }).check()
  await work.click()
  const row = edda.getByRole('row', { name: /Imke Varga/ })
  await expect(row.getByRole('checkbox', { name: 'Place Imke Varga' })).toBeChecked()
  await clean(edda, 'a placing that is proposed')
  const rows = edda.getByRole('checkbox', { name: /^Place / })
  const others = (await rows.count()) - 1
  await rows
    .filter({ hasNot: edda.getByLabel('Place Imke Varga') })
    .last()
    .uncheck()
  await edda
    .getByRole('button', { name: `Place ${others === 1 ? '1 student' : `${others} students`}` })
    .click()
  await expect(edda.getByText(`${others} placed.`)).toBeVisible()
  await expect(row.getByRole('cell', { name: 'Placed', exact: true })).toBeVisible()
  await wellMade(edda, 'a placing that is done')

  const imke = await enter(site, 'imke.varga', PHONE)
  await imke.goto('/students/1/register')
  await settled(imke)
  const receipt = imke.getByRole('region', { name: /^Receipt/ })
  await expect(receipt).toContainText('Edda Whitlock')
  await expect(receipt).toContainText('Handed in for Autumn 2027')
  await expect(receipt).toContainText(
    'Set aside by the office: the opening, the sign-off, the terms of registration.'
  )
  const seats = await site.query<{ placed: number }>(
    `select placed_by_office placed from registration r join section s on s.id = r.section_id
       join term t on t.id = s.term_id where r.student_id = 1 and t.code = 'AU27'`
  )
  expect(seats.length).toBeGreaterThan(0)
  expect(seats.every((one) => one.placed === 1)).toBe(true)
  for (const page of [edda, imke]) await leave(page)
})
