import { createServer, type IncomingMessage } from 'node:http'
import type { AddressInfo } from 'node:net'
import { Webhook } from 'standardwebhooks'
import { ACCESS } from '../../server/http/access'
import { scopesOf, type Line } from '../../server/http/scopes'
import { clean, settled } from './axe'
import { enter, expect, leave, test, type DemoSite } from './site'

test.use({ scenario: 'connections' })

const PLACES: Record<string, string> = {
  code: 'AU27',
  course: 'ENDA-410',
  section: 'L9SQG',
  route: '1',
  id: '1',
  condition: 'none'
}
/** A call with a token, without a body. */
async function asked(site: DemoSite, line: string, token: string, body?: unknown) {
  const [method, pattern] = line.split(' ') as [string, string]
  const path = pattern.replace(/:(\w+)/g, (_, name: string) => PLACES[name] ?? '99999')
  const answer = await fetch(site.address + path, {
    method,
    headers: {
      authorization: `Bearer ${token}`,
      ...(method === 'POST' && { 'content-type': 'application/json' })
    },
    ...(method === 'POST' && { body: JSON.stringify(body ?? {}) })
  })
  return {
    answer,
    said: (await answer.json().catch(() => null)) as { code?: string; message?: string } | null
  }
}

test('a program of an office asks with a token, for what it is for alone, and its name is in the log', async ({
  site
}) => {
  const page = await enter(site, 'edda.whitlock')
  await page.goto('/connections')
  await settled(page)
  await clean(page, 'other systems, none yet')
  const form = page.getByRole('form', { name: 'A new token' })
  await form.getByLabel('name of the program that asks').fill('Bursar’s ledger')
  await form.getByLabel('see, place and lift holds').check()
  await form.getByLabel('find students and read their records').check()
  await form.getByRole('button', { name: 'Make the token' }).click()
  const told = page.getByRole('status').filter({ hasText: 'told here once' })
  const token = (await told.locator('> code').textContent())!
  expect(token).toMatch(/^ridgeway_[\w-]{43}$/)

  const scopes = ['holds.change', 'students.read']
  for (const line of Object.keys(ACCESS) as Line[]) {
    if ('open' in ACCESS[line]) continue
    const { answer, said } = await asked(site, line, token)
    const isWithin = scopesOf(line).some((scope) => scopes.includes(scope))
    if (isWithin) expect([401, 403], line).not.toContain(answer.status)
    // What is about a session itself knows of no token.
    else expect(['403 outOfScope', '401 signedOut'], line).toContain(`${answer.status} ${said?.code}`)
  }
  const placed = await asked(site, 'POST /api/holds', token, {
    kind: 1,
    students: [{ number: 'H204007', amount: 12 }]
  })
  expect(placed.answer.status, JSON.stringify(placed.said)).toBe(200)
  const log = await site.query<{ name: string; action: string }>(
    'select a.name, e.action from event_log e join account a on a.id = e.account_id where e.student_id = 1 order by e.id desc limit 1'
  )
  expect(log).toEqual([{ name: 'Bursar’s ledger', action: 'hold.placed' }])
  const none = await asked(site, 'GET /api/holds', `${token}x`)
  expect([none.answer.status, none.answer.headers.get('www-authenticate')]).toEqual([
    401,
    'Bearer error="invalid_token"'
  ])

  await told.getByRole('button', { name: 'I have it' }).click()
  await page.getByRole('button', { name: 'End the token of Bursar’s ledger' }).click()
  await expect(page.getByText('holds no more')).toBeVisible()
  expect((await asked(site, 'GET /api/holds', token)).answer.status).toBe(401)
  await leave(page)
})

test('another system is told what has changed, signed, and again what it missed @long', async ({ site }) => {
  const heard: { headers: IncomingMessage['headers']; body: string }[] = []
  /** What is only tried out does not arrive at first. */
  const isMissed = () => heard.filter((one) => one.body.includes('webhook.tested')).length === 1
  const server = createServer((request, answer) => {
    let body = ''
    request.on('data', (chunk) => (body += chunk))
    request.on('end', () => {
      heard.push({ headers: request.headers, body })
      answer.writeHead(isMissed() ? 503 : 204).end()
    })
  })
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/told`
  const page = await enter(site, 'edda.whitlock')
  await page.goto('/connections')
  const form = page.getByRole('form', { name: 'A new webhook' })
  await form.getByLabel('name of the system that is told').fill('Door plates')
  await form.getByRole('textbox', { name: 'address' }).fill('https://elsewhere.example/told')
  await form.getByLabel('a record has changed').check()
  await form.getByRole('button', { name: 'Make the webhook' }).click()
  await expect(
    form.getByText('has to be of a host that the configuration of this server names').first()
  ).toBeVisible()
  await form.getByRole('textbox', { name: 'address' }).fill(address)
  await form.getByRole('button', { name: 'Make the webhook' }).click()
  const secret = (await page
    .getByRole('status')
    .filter({ hasText: 'told here once' })
    .locator('> code')
    .textContent())!

  const placed = await page.request.post('/api/holds', {
    data: { kind: 3, students: [{ number: 'H204021', amount: null }] }
  })
  expect(placed.ok(), await placed.text()).toBe(true)
  await expect.poll(() => heard.length).toBe(1)
  const read = new Webhook(secret).verify(heard[0]!.body, heard[0]!.headers as Record<string, string>)
  expect(read).toMatchObject({ type: 'record.changed', data: { students: [{ number: 'H204021' }] } })

  const card = page.getByRole('listitem').filter({ hasText: 'Door plates' })
  await card.getByRole('button', { name: 'Try Door plates out' }).click()
  await card.getByRole('button', { name: 'What it was told' }).click()
  // Five seconds after the first try.
  await expect(card.getByText('arrived at try 2')).toBeVisible()
  await clean(page, 'other systems, one that is told')
  expect(heard.at(-1)!.headers['webhook-id']).toBe(heard.at(-2)!.headers['webhook-id'])
  await card.getByRole('button', { name: 'End Door plates' }).click()
  await expect(page.getByText('is told nothing any more')).toBeVisible()
  await leave(page)
  server.close()
})
