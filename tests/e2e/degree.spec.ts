/** Degree beyond the tree: exceptions, comparing, files, a trial record, the sheet. */
import { readFile } from 'node:fs/promises'
import Papa from 'papaparse'
import type { AuditFile } from '#shared/degree/auditFile'
import { choose, enter, expect, leave, scenarioOfReading, test } from './site'

test.use({ scenario: scenarioOfReading('degree') })

test('the advisor grants an exception in place, the student sees it, it is withdrawn @long', async ({
  site
}) => {
  const orla = await enter(site, 'orla.denholt')
  await orla.goto('/students/1/degree')
  await orla.getByRole('button', { name: 'Grant an exception for A course in speaking' }).click()
  await expect(orla.getByRole('button', { name: 'Grant', exact: true })).toBeDisabled()
  await orla.getByLabel('Reason').fill('Spoke at the county hearing')
  await orla.getByRole('button', { name: 'Grant', exact: true }).click()
  await expect(orla.getByText('Spoke at the county hearing')).toBeVisible()

  const imke = await enter(site, 'imke.varga')
  await imke.goto('/students/1/degree')
  const given = imke.locator('.given')
  await expect(given).toContainText('Waived by Orla Denholt')
  await expect(imke.getByRole('button', { name: 'Withdraw' })).toHaveCount(0)
  const refused = await imke.request.delete('/api/students/1/exceptions/1')
  expect(refused.status()).toBe(403)

  await orla.getByRole('button', { name: 'Withdraw' }).click()
  await expect(
    orla.getByRole('button', { name: 'Grant an exception for A course in speaking' })
  ).toBeVisible()
  // What is shown at once may still be on its way.
  const log = () =>
    site.query<{ action: string }>("select action from event_log where action like 'exception%' order by id")
  await expect.poll(log).toEqual([{ action: 'exception.granted' }, { action: 'exception.withdrawn' }])
  await leave(orla)
  await leave(imke)
})

test('a record is compared with another program, side by side', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await page.goto('/students/1/degree')
  await page.getByRole('link', { name: 'Compare', exact: true }).click()
  await choose(page, 'with', 'BA Heritage and Landscape, catalog 2025-26')
  await expect(page.getByRole('region', { name: 'BSc Environmental Data' })).toContainText(
    '13 of 120 credits still needed'
  )
  await expect(page.getByRole('region', { name: 'BA Heritage and Landscape' })).toContainText(
    '56 of 120 credits still needed'
  )
  const row = page.getByRole('row', { name: /^ENDA 240/ })
  await expect(row).toContainText('Data core')
  const lost = page.locator('tr.lost')
  expect(await lost.count()).toBeGreaterThan(3)
  await expect(lost.first()).toContainText('counts no more')
  await expect(page.getByRole('row', { name: /^WRIT 101/ })).toContainText('counts as before')
  await leave(page)
})

test('the audit is saved as JSON and CSV, and both say what the screen says', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await page.goto('/students/1/degree')
  const save = async (name: string) => {
    await page.getByRole('button', { name: 'Print or export' }).click()
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByText(name).click()])
    return readFile(await download.path(), 'utf8')
  }
  const file = JSON.parse(await save('Save the audit as JSON')) as AuditFile
  expect(file.programs.map((one) => one.code)).toEqual(['ENVD', 'STAM'])
  expect(file.programs[0]!.amounts).toMatchObject({ earned: 48, underWay: 15, needed: 13 })
  const csv = await save('Save the audit as CSV')
  // RFC 4180: lines end in CRLF.
  expect(csv.split('\r\n').length).toBeGreaterThan(30)
  const { data, errors } = Papa.parse<Record<string, string>>(csv.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: true
  })
  expect(errors).toEqual([])
  expect(data.find((row) => row.course === 'ENDA 110')).toMatchObject({ area: 'Data core', grade: 'B+' })

  // The record as a file is what a trial reads, and it says the same again.
  const record = await save('Save the record as JSON')
  await page.goto('/students/1/degree/trial')
  const give = async (name: string, content: string) => {
    const asked = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'choose a file' }).click()
    await (await asked).setFiles({ name, mimeType: 'application/json', buffer: Buffer.from(content) })
  }
  await give('mine.json', record)
  await expect(page.getByText('of 120 credits earned')).toBeVisible()
  await expect(page.locator('.figures dd').first()).toHaveText('48')
  await expect(page.getByText('ENDA 410 in Autumn 28 needs STAT 330 before it.')).toBeVisible()
  await give('bad.json', '{"format":"x"}')
  await expect(page.getByRole('alert')).toContainText('has to be "ridgeway record 1"')
  expect(await site.query('select count(*) as n from record_course where student_id = 1')).toEqual([
    { n: 18 }
  ])
  await leave(page)
})

test('the bare program stands by area and by term on one sheet, and nothing of the record with it', async ({
  site
}) => {
  const page = await enter(site, 'imke.varga')
  await page.goto('/students/1/degree/program')
  await expect(page.getByRole('heading', { name: 'By area' })).toBeVisible()
  await expect(page.getByText('Field electives (HYDR 300-499 or SOIL 300+', { exact: false })).toBeVisible()
  await expect(page.getByRole('heading', { name: /^Term 8/ })).toBeVisible()
  await expect(page.locator('.chip')).toHaveCount(0)
  await leave(page)
})

test('the earliest finish says what makes it so, and the record tells each term', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  await page.goto('/students/1/degree')
  await page.getByRole('button', { name: 'why' }).click()
  await expect(
    page.getByText(/waits for ENDA 480 in Autumn 28 at the earliest, then ENDA 490 in Spring 29/)
  ).toBeVisible()
  await page.getByRole('link', { name: 'Record', exact: true }).click()
  // The header, and then attempted, earned, counting, the term's GPA and that so far: three terms with grades, one under way.
  const table = page.getByRole('table', { name: 'Credits and GPA by term' })
  await expect(table.getByRole('row')).toHaveCount(6)
  await expect(table.getByRole('row', { name: /^Term GPA( \d\.\d\d){3} –$/ })).toBeVisible()
  await leave(page)
})
