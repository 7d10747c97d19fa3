/** Signing in by the sign-on of an institution, here a provider of the standard that ships as a stand-in. */
import { freePort } from '../../tools/mariadb'
import { startSite, type Site } from '../../tools/site'
import { STAND_IN_CLIENT, STAND_IN_SECRET, startSignOn, type StandIn } from '../../tools/signOn'
import { clean } from './axe'
import { expect, leave, ROOT, test, visit, type DemoSite } from './site'
import type { Page } from '@playwright/test'

test.use({ scenario: 'signOn' })

/** Of whom the sign-on says more than the name. */
const GROUPS: Record<string, string[]> = {
  'edda.whitlock': ['records'],
  'new.advisor': ['advisors'],
  'two.groups': ['advisors', 'records']
}
let standIn: StandIn
let served: Site
let college: DemoSite

/** The demo, served by a process that knows of a sign-on. */
async function serve(site: DemoSite, port: number, issuer: string): Promise<Site> {
  return startSite(ROOT, port, site.url, {
    env: {
      RIDGEWAY_ORIGIN: `http://127.0.0.1:${port}`,
      RIDGEWAY_SIGN_ON: issuer,
      RIDGEWAY_SIGN_ON_CLIENT: STAND_IN_CLIENT,
      RIDGEWAY_SIGN_ON_SECRET: STAND_IN_SECRET,
      RIDGEWAY_SIGN_ON_TITLE: 'Harrowmere sign-on',
      RIDGEWAY_SIGN_ON_ROLES: 'registrar=records,programAdvisor=advisors',
      RIDGEWAY_PASSWORDS: 'off',
      RIDGEWAY_LOG: 'silent'
    }
  })
}

test.beforeAll(async ({ site }) => {
  const port = await freePort()
  const origin = `http://127.0.0.1:${port}`
  standIn = await startSignOn(await freePort(), `${origin}/sign-on/back`, (name) => ({
    groups: GROUPS[name] ?? [],
    name: `Somebody called ${name}`,
    email: `${name}@harrowmere.example`
  }))
  served = await serve(site, port, standIn.issuer)
  college = { ...site, address: served.address }
})
test.afterAll(async () => {
  await served.stop()
  await standIn.stop()
})

/** Says a name at the sign-on, whose own page this is. */
async function say(page: Page, name: string): Promise<void> {
  await page.getByRole('link', { name: 'Sign in with Harrowmere sign-on' }).click()
  await page.getByPlaceholder('Enter any login').fill(name)
  await page.getByPlaceholder('and password').fill('anything')
  await page.getByRole('button', { name: 'Sign-in' }).click()
  await page.getByRole('button', { name: 'Continue' }).click()
}

test('a student comes in by the sign-on, to where they wanted to go', async ({ site }) => {
  const page = await visit(college)
  await page.goto('/students/1/degree')
  await expect(page.getByRole('link', { name: 'Sign in with Harrowmere sign-on' })).toBeVisible()
  await expect(page.getByLabel('Password')).toHaveCount(0)
  await clean(page, 'signing in by the sign-on')
  await say(page, 'imke.varga')
  await expect(page.getByRole('heading', { name: 'BSc Environmental Data', level: 1 })).toBeVisible()
  expect(new URL(page.url()).pathname).toBe('/students/1/degree')
  const [row] = await site.query<{ after: unknown }>(
    "select `after` from event_log where action = 'signIn.made' order by id desc limit 1"
  )
  expect(JSON.stringify(row)).toContain('signOn')
  await leave(page)
})

test('roles are those of the sign-on: without the group nobody comes in, with it somebody new does', async ({
  site
}) => {
  const page = await visit(college)
  await page.goto('/sign-in')
  // An advisor here, of whom the sign-on says no group.
  await say(page, 'orla.denholt')
  await expect(page.getByRole('alert')).toContainText('does not say that you have the role')
  await page.context().clearCookies()
  await page.goto('/sign-in')
  await say(page, 'two.groups')
  await expect(page.getByRole('alert')).toContainText('nobody signs in here by that name')
  await page.context().clearCookies()
  await page.goto('/sign-in')
  await say(page, 'new.advisor')
  await expect(page).toHaveURL(/\/desk$/)
  await page.context().clearCookies()
  await page.goto('/sign-in')
  await say(page, 'edda.whitlock')
  await expect(page).toHaveURL(/\/terms$/)
  expect(
    await site.query("select role, mail from account where sign_in in ('new.advisor', 'two.groups')")
  ).toEqual([{ role: 'programAdvisor', mail: 'new.advisor@harrowmere.example' }])
  await leave(page)
})

test('a password counts no more, a way back that was not begun here leads to the door', async () => {
  const page = await visit(college)
  const tried = await page.request.post('/api/session', {
    data: { name: 'imke.varga', password: 'harrowmere' }
  })
  expect([tried.status(), ((await tried.json()) as { code: string }).code]).toEqual([409, 'noPasswords'])
  await page.goto('/sign-on/back?code=stolen&state=guessed')
  await expect(page.getByRole('alert')).toContainText('did not come to its end')
  // A way that somebody else began: the state is not the one of this browser.
  const begun = await page.request.get('/sign-on', { maxRedirects: 0 })
  const to = new URL(begun.headers().location!)
  expect(to.searchParams.get('code_challenge_method')).toBe('S256')
  await page.goto(`/sign-on/back?code=stolen&state=other&iss=${encodeURIComponent(standIn.issuer)}`)
  await expect(page.getByRole('alert')).toContainText('did not come to its end')
  expect(await (await page.request.get('/api/session')).text()).toBe('')
  await leave(page)
})

test('a sign-on that does not answer is said at the door', async ({ site }) => {
  const alone = await serve(site, await freePort(), `http://127.0.0.1:${await freePort()}`)
  const page = await visit({ ...site, address: alone.address })
  await page.goto('/sign-in')
  await page.getByRole('link', { name: 'Sign in with Harrowmere sign-on' }).click()
  await expect(page.getByRole('alert')).toContainText('did not come to its end')
  await leave(page)
  await alone.stop()
})
