/** A college's files: taken away whole, brought with a look at each line, taken over and taken back. */
import { readFileSync } from 'node:fs'
import { strFromU8, unzipSync } from 'fflate'
import { clean } from './axe'
import { enter, expect, leave, test } from './site'

test.use({ scenario: 'files' })

test('everything is taken along, and a set with three bad lines is brought and taken back @long', async ({
  site
}) => {
  const page = await enter(site, 'edda.whitlock')
  await page.goto('/people')
  await page.getByRole('link', { name: 'Files' }).click()
  await expect(page.getByText('Nothing yet.')).toBeVisible()
  await clean(page, 'files')

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the archive' }).click()
  ])
  const archive = readFileSync(await download.path())
  const files = Object.fromEntries(
    Object.entries(unzipSync(archive)).map(([name, bytes]) => [name, strFromU8(bytes)])
  )
  expect(Object.keys(files)).toContain('manifest.csv')
  expect(files['users.csv']).toContain('Imke,Varga')
  const [own] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save it in our formats' }).click()
  ])
  const names = Object.keys(unzipSync(readFileSync(await own.path())))
  expect(names).toEqual(expect.arrayContaining(['catalog.json', 'lists.json', 'records/H204007.json']))
  const long = await page.request.post('/api/imports', {
    data: { name: 'much', files: [{ name: 'demographics.csv', text: 'x'.repeat(12_000_000) }] }
  })
  expect(long.status(), 'a set of twelve megabytes').toBe(200)
  const choose = (content: { name: string; mimeType: string; buffer: Buffer }) =>
    page.locator('input[type=file]').setInputFiles(content)

  await test.step('the same set again changes nothing', async () => {
    await choose({ name: 'college.zip', mimeType: 'application/zip', buffer: archive })
    await page.getByRole('button', { name: 'See what it would change' }).click()
    await expect(page.getByText('Nothing differs from what is here')).toBeVisible()
    await expect(page.getByRole('button', { name: 'Nothing to take over' })).toBeDisabled()
    await clean(page, 'a set without a difference')
    await page.goto('/files')
  })

  await test.step('bad lines are told with their number, the others taken over', async () => {
    const text = [
      'sourcedId,title,courseCode,orgSourcedId,metadata.credits',
      'a,Peatland Restoration,PEAT 310,institution,4',
      'b,No Such Code,peat,institution,4',
      'c,Nowhere,PEAT 311,elsewhere,4',
      'd,Without Credits,PEAT 312,institution,',
      'e,The Living Land,ENVI 101,institution,'
    ].join('\n')
    await choose({ name: 'courses.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
    await page.getByRole('button', { name: 'See what it would change' }).click()
    await expect(page.getByRole('heading', { name: '3 bad lines, not taken over' })).toBeVisible()
    await expect(page.getByText('courses.csv, line 3')).toBeVisible()
    await expect(page.getByText('courses.csv, line 4')).toBeVisible()
    await expect(page.getByText('courses.csv, line 5')).toBeVisible()
    await expect(page.getByRole('row', { name: /The Living Land/ })).toContainText('The Living Landscape')
    await clean(page, 'a set with bad lines')
    await expect(page.getByRole('button', { name: 'Take over 2 lines' })).toBeEnabled()
    await page.getByRole('checkbox', { name: 'Take over courses, line 6' }).uncheck()
    await page.getByRole('button', { name: 'Take over 1 line' }).click()
    await expect(page.getByText('taken over', { exact: true })).toBeVisible()
    await page.goto('/courses/ENVI-101')
    await expect(page.getByRole('heading', { name: /The Living Landscape/ })).toBeVisible()
    await page.goto('/courses/PEAT-310')
    await expect(page.getByRole('heading', { name: /Peatland Restoration/ })).toBeVisible()
  })

  await test.step('taken back, it is as it was before', async () => {
    await page.goto('/files')
    await page.getByRole('link', { name: 'courses.csv' }).click()
    await page.getByRole('button', { name: 'Take it back' }).click()
    await expect(page.getByText('taken back', { exact: true })).toBeVisible()
    const [course] = await site.query<{ title: string; brought: number }>(
      `select title, (select count(*) from course where code = 'PEAT 310') as brought from course where code = 'ENVI 101'`
    )
    expect(course).toEqual({ title: 'The Living Landscape', brought: 0 })
    await leave(page)
  })
})
