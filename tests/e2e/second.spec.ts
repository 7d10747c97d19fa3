/**
 * A college of another kind than the demo's, made by files alone out of an empty database (`demo/second`): quarters with a
 * winter, courses of 4 credits, grades of its own, French titles. By what a registrar can do; then audited, planned,
 * registered.
 */
import { spawnSync } from 'node:child_process'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { clean, settled } from './axe'
import { clockAt, emptyCollege, type College } from './emptyCollege'
import { expect, leave, ROOT, test, visit } from './site'

test.use({ scenario: 'second' })

const FOLDER = join(ROOT, 'demo', 'second')
const PASSWORD = 'sous les grands hêtres'
const OPENS = Date.parse('2027-04-12T05:00:00Z')

const filesOf = (set: string) =>
  readdirSync(join(FOLDER, set)).map((name) => ({
    name,
    text: readFileSync(join(FOLDER, set, name), 'utf8')
  }))

/** As an office does it that has no sign-on of its own yet: a password on the command line. */
function givePassword(url: string, signIn: string): void {
  const { status, stderr } = spawnSync(
    process.execPath,
    ['--import', 'tsx', 'tools/account.ts', '--sign-in', signIn],
    { cwd: ROOT, env: { ...process.env, DATABASE_URL: url }, input: `${PASSWORD}\n`, encoding: 'utf8' }
  )
  expect(status, stderr).toBe(0)
}

async function signedIn(college: College, name: string): Promise<Page> {
  givePassword(college.url, name)
  const page = await visit(college.site)
  await answer(page, 'session', { name, password: PASSWORD })
  return page
}

/** What a call answers; refused ones fail with their words. */
async function answer<T>(page: Page, path: string, data?: object): Promise<T> {
  const got = await page.request.fetch(`/api/${path}`, data ? { method: 'POST', data } : {})
  expect(got.ok(), `${path}: ${await got.text()}`).toBe(true)
  return (got.status() === 204 ? null : await got.json()) as T
}

async function bring(page: Page, set: string): Promise<void> {
  const { id } = await answer<{ id: number }>(page, 'imports', { name: set, files: filesOf(set) })
  const read = await answer<{ faults: unknown[]; items: { change: string; reason?: string }[] }>(
    page,
    `imports/${id}`
  )
  expect(read.faults).toEqual([])
  // Of past terms what was taken is brought, and not the sections.
  const left = read.items.filter((one) => one.change === 'left' && !/that has begun/.test(one.reason ?? ''))
  expect(left).toEqual([])
  await answer(page, `imports/${id}/apply`, {})
}

async function publishProgram(page: Page): Promise<void> {
  const [about] = [{ code: 'HYDR', title: 'Bachelor en hydrologie', kind: 'degree', catalogYear: '2026-27' }]
  const { id } = await answer<{ id: number }>(page, 'programs/drafts', { of: 'new', ...about })
  const text = readFileSync(join(FOLDER, 'programs', 'HYDR.yaml'), 'utf8')
  const { version } = await answer<{ version: number }>(page, `programs/drafts/${id}`, { text, version: 1 })
  await answer(page, `programs/drafts/${id}/publication`, { version })
}

async function openAutumn(page: Page): Promise<void> {
  const term = await answer<Record<string, unknown>>(page, 'terms/AU27')
  await answer(page, 'terms/AU27', { ...term, signOffPolicy: 'none' })
  await answer(page, 'terms/AU27/publication', {})
  await answer(page, 'openings', { term: 'AU27', title: 'Tout le monde', opens: OPENS })
}

/** The student picks for autumn, and registers at the opening; what a grade or a seat forbids is refused. */
async function registers(college: College): Promise<void> {
  const come = await signedIn(college, 'come.lestrade')
  const route = await answer<{ route: { version: number } }>(come, 'students/2')
  const add = (course: string) => ({ kind: 'add', planned: { course, term: 'AU27', credits: 4 } })
  const courses = ['EAU 101', 'EAU 210', 'BOIS 310']
  const change = { kind: 'several', changes: courses.map(add) }
  await answer(come, 'students/2/route', { version: route.route.version, change })
  const offer = await answer<{ code: string; course: string; number: string }[]>(come, 'terms/AU27/offer')
  const numbered = (course: string, number: string) =>
    offer.find((one) => one.course === course && one.number === number)!.code
  const pick = (course: string, number: string) => ({ course, sections: [numbered(course, number)] })
  const picks = [pick('EAU 101', '1'), pick('EAU 210', '1'), pick('BOIS 310', '1')]
  await answer(come, 'students/2/picks', { term: 'AU27', picks })
  await clockAt(college.url, OPENS + 60_000)
  await come.goto('/students/2/register')
  // EAU 101 failed as WF, and is not there yet for EAU 210; BOIS 310 stands on neither of its two.
  await expect(come.getByText('It needs BOIS 220 or EAU 210 before it.')).toBeVisible()
  await expect(come.getByText('It needs EAU 101 before it.')).toBeVisible()
  await expect(come.getByText('leaves a WD').first()).toBeVisible()
  await come.getByRole('button', { name: 'Register 3', exact: true }).click()
  await expect(come.getByText('1 line of 3 went through.')).toBeVisible()
  await clean(come, 'Register of another college')
  await leave(come)
}

test('a college of quarters comes into being by files, audits, plans and registers @long', async ({
  site
}) => {
  test.setTimeout(180_000)
  const { key, ...college } = await emptyCollege(site)
  try {
    const office = await visit(college.site)
    await answer(office, `welcome/${key}`, { next: PASSWORD })
    await bring(office, 'frame')
    await publishProgram(office)
    await bring(office, 'people')
    await openAutumn(office)

    const maelle = await signedIn(college, 'maelle.ardent')
    await maelle.goto('/')
    await expect(maelle.getByText('Is Bachelor en hydrologie right?')).toBeVisible()
    await clean(maelle, 'Today of another college')
    await maelle.goto('/students/1/degree')
    await settled(maelle)
    // 20 of 40 credits; D- earns credits, S counts for no average: (4.3 + 3 + 0.7) × 4 / 12.
    await expect(maelle.getByText('Bachelor en hydrologie').first()).toBeVisible()
    await maelle.goto('/students/1/degree/record')
    await expect(maelle.getByText('2.67').first()).toBeVisible()
    await expect(maelle.getByText('Hiver 27').first()).toBeVisible()

    await maelle.goto('/students/1/route')
    await maelle.getByRole('button', { name: /^Fill the rest/ }).click()
    await maelle.getByRole('button', { name: 'Look for a way' }).click()
    await maelle.getByRole('button', { name: /^Take/ }).first().click()
    // EAU 320 runs in winter and asks for a B in EAU 201, which is taken again for it.
    await expect(maelle.getByText('finish Printemps 29')).toBeVisible()
    await expect(maelle.getByText('No findings')).toBeVisible()
    for (const [code, title] of [
      ['EAU-10.101', 'Rivières en crue'],
      ['bois-f21a', 'Atelier de grimpe']
    ] as const) {
      await maelle.goto(`/courses/${code}`)
      await expect(maelle.getByRole('heading', { name: title })).toBeVisible()
      await expect(maelle.getByText('Deux cours de forêt').first()).toBeVisible()
    }
    await leave(maelle)
    await registers(college)
    await leave(office)
  } finally {
    await college.served.stop()
  }
})
