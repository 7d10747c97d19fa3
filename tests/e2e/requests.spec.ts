import { connect } from 'node:net'
import type { APIRequestContext } from '@playwright/test'
import { enter, expect, leave, test, visit } from './site'

test.use({ scenario: 'requests' })

interface Answer {
  code: string
  message: string
  fields?: { field: string; message: string }[]
}

const add = (planned: object) => ({ version: 1, change: { kind: 'add', planned } })
const fine = { course: 'HERI 320', term: 'SP28', credits: 3 }

/** Path, body, and the field that the answer has to name. */
const MALFORMED: [string, unknown, string][] = [
  ['students/1/route', {}, 'version'],
  ['students/1/route', { version: 'one', change: { kind: 'move' } }, 'version'],
  ['students/1/route', { version: 1 }, 'change'],
  ['students/1/route', { version: 1, change: { kind: 'jump' } }, 'change.kind'],
  ['students/1/route', add({ ...fine, course: 'history' }), 'change.planned.course'],
  ['students/1/route', add({ ...fine, term: 'Autumn' }), 'change.planned.term'],
  ['students/1/route', add({ ...fine, credits: -3 }), 'change.planned.credits'],
  ['students/1/route', add({ ...fine, credits: 2.3 }), 'change.planned.credits'],
  ['students/1/route', add({ ...fine, note: 'x'.repeat(401) }), 'change.planned.note'],
  ['students/1/picks', { term: 'AU27', picks: [{ course: 'ENDA 310' }] }, 'picks.0.sections'],
  [
    'students/1/picks',
    { term: 'AU27', picks: [{ course: 'ENDA 310', sections: ['QQ'] }] },
    'picks.0.sections.0'
  ],
  ['students/1/picks', { term: 'AU27', picks: [] }, 'picks'],
  ['students/1/picks', { term: 27, picks: [{ course: 'ENDA 310', sections: [] }] }, 'term'],
  ['students/1/weeks', { term: 'AU27', name: ' ' }, 'name'],
  ['students/1/weeks', { term: 'AU27', name: 'x', sections: ['nothing'] }, 'sections.0'],
  ['students/1/weeks/99999', { goingWith: false }, 'goingWith'],
  [
    'students/1/keep-free',
    { hours: [{ name: 'x', days: [1], start: 600, end: 540, hard: true }] },
    'hours.0.end'
  ],
  [
    'students/1/keep-free',
    { hours: [{ name: 'x', days: [8], start: 1, end: 2, hard: true }] },
    'hours.0.days.0'
  ],
  ['students/1/week-habits', { wishes: [{ kind: 'sunshine' }], travelHolds: false }, 'wishes.0.kind'],
  ['students/1/runs', { term: 'AU27', courses: [] }, 'courses'],
  ['students/1/runs', { term: 'AU27', courses: 'all' }, 'courses'],
  ['students/1/payments', { term: 'AU27', amount: 0.5 }, 'amount'],
  ['students/1/payments', { term: 'AU27', amount: '500.00' }, 'amount'],
  ['students/1/payments', { term: 'AU27', amount: 500 }, 'Idempotency-Key'],
  ['students/1/program', { answer: 'wrong', program: 'ENVD' }, 'instead'],
  ['students/1/program', { answer: 'perhaps' }, 'answer'],
  ['students/1/exceptions', { kind: 'waiver', program: 'ENVD', need: 'speaking' }, 'reason'],
  ['students/1/exceptions', { kind: 'favour' }, 'kind'],
  [
    'students/1/exceptions',
    { kind: 'substitution', program: 'ENVD', need: 'x', reason: 'because', course: 'X' },
    'course'
  ],
  ['students/1/requests', { kind: 'waiver', course: 'ENDA 410', reason: 'no' }, 'reason'],
  ['students/1/requests', { kind: 'waiver', course: 'x', reason: 'took its like' }, 'course'],
  ['students/1/requests', { kind: 'favour', reason: 'took its like' }, 'kind'],
  ['requests/answers', { requests: [1], answer: 'perhaps' }, 'answer'],
  ['requests/answers', { requests: [], answer: 'given' }, 'requests'],
  ['students/1/terms/AU27', { text: 12 }, 'text'],
  [
    'students/1/carry',
    { credits: 12, least: 15, hours: null, outside: null, target: null, terms: [] },
    'least'
  ],
  ['clock', { mode: 'standing', at: 'soon' }, 'at'],
  ['clock', { mode: 'standing', at: '0001-01-01T00:00:00Z' }, 'at'],
  ['clock', { mode: 'running', at: '9999-12-31T00:00:00Z' }, 'at'],
  ['clock', { mode: 'backwards' }, 'mode'],
  ['session', { name: '', password: 'x' }, 'name'],
  ['session', { name: 'imke.varga' }, 'password'],
  ['session', [], 'body']
]

async function post(request: APIRequestContext, path: string, body: unknown) {
  const answer = await request.post(`/api/${path}`, {
    data: typeof body === 'string' ? body : JSON.stringify(body),
    headers: { 'content-type': 'application/json' }
  })
  return { status: answer.status(), body: (await answer.json()) as Answer }
}

test('a malformed body gives 400 with the field, and changes nothing', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  const advisor = await enter(site, 'orla.denholt')
  const before = await site.query('select version from route where id = 1')
  for (const [path, body, field] of MALFORMED) {
    const who = /exceptions|answers$/.test(path) ? advisor : page
    const { status, body: answer } = await post(who.request, path, body)
    const label = `${path} ${JSON.stringify(body).slice(0, 80)}`
    expect(status, label).toBe(400)
    expect(
      answer.fields?.map((f) => f.field),
      label
    ).toContain(field)
    expect(answer.message.length, label).toBeGreaterThan(8)
  }
  const { status, body } = await post(page.request, 'students/1/route', '{broken')
  expect([status, body.code]).toEqual([400, 'malformed'])
  expect(await site.query('select version from route where id = 1')).toEqual(before)
  await leave(advisor)
  await leave(page)
})

test('what another site sends, and what is not JSON, is not obeyed, sign-in included', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  const before = await site.query('select version from route where id = 1')
  const body = JSON.stringify(add(fine))
  const json = { 'content-type': 'application/json' }
  const cases: [string, string, Record<string, string>, number][] = [
    ['students/1/route', body, { ...json, origin: 'https://elsewhere.example' }, 403],
    ['students/1/route', body, { ...json, origin: 'null' }, 403],
    ['students/1/route', body, { ...json, 'sec-fetch-site': 'cross-site' }, 403],
    ['students/1/route', body, { ...json, 'sec-fetch-site': 'same-site' }, 403],
    ['students/1/route', body, { 'content-type': 'text/plain' }, 415],
    [
      'session',
      'name=imke.varga&password=harrowmere',
      { 'content-type': 'application/x-www-form-urlencoded' },
      415
    ],
    [
      'session',
      '{"name":"imke.varga","password":"harrowmere"}',
      { ...json, origin: 'https://elsewhere.example' },
      403
    ]
  ]
  for (const [path, data, headers, status] of cases) {
    const answer = await page.request.post(`/api/${path}`, { data, headers })
    expect([path, headers, answer.status()]).toEqual([path, headers, status])
    expect(((await answer.json()) as Answer).message.length).toBeGreaterThan(8)
  }
  const gone = await page.request.delete('/api/session', { headers: { origin: 'https://elsewhere.example' } })
  expect(gone.status()).toBe(403)
  expect(await site.query('select version from route where id = 1')).toEqual(before)
  await leave(page)
})

test('a body is counted as it comes, and half of a character is refused with its field', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  const long = await post(page.request, 'students/1/route', add({ ...fine, note: 'x'.repeat(70_000) }))
  expect([long.status, long.body.code]).toEqual([413, 'tooLong'])
  const { host } = new URL(site.address)
  const chunked = await new Promise<string>((resolve) => {
    const [name, port] = host.split(':') as [string, string]
    const socket = connect(Number(port), name, () => {
      socket.write(
        `POST /api/session HTTP/1.1\r\nhost: ${host}\r\ncontent-type: application/json\r\ntransfer-encoding: chunked\r\n\r\n`
      )
      const piece = 'x'.repeat(16_384)
      for (let i = 0; i < 8; i++) socket.write(`${piece.length.toString(16)}\r\n${piece}\r\n`)
    })
    let read = ''
    socket.on('data', (data) => (read += String(data)))
    socket.on('close', () => resolve(read))
    socket.setTimeout(5000, () => socket.destroy())
  })
  expect(chunked).toMatch(/^HTTP\/1\.1 413 /)
  const half = await post(
    page.request,
    'students/1/route',
    '{"version":1,"change":{"kind":"add","planned":{"course":"HERI 320","term":"SP28","credits":3,"note":"a\\ud800"}}}'
  )
  expect([half.status, half.body.fields?.[0]?.field]).toEqual([400, 'change.planned.note'])
  await leave(page)
})

test('pages and answers are compressed as far as whoever asks understands it, and say the same', async ({
  site
}) => {
  for (const path of ['/sign-in', '/public', '/public/openapi.json']) {
    const texts = new Set<string>()
    for (const [taken, coding] of [
      ['gzip, br', 'br'],
      ['br;q=0, gzip', 'gzip'],
      ['gzip;q=0', null],
      ['identity', null]
    ] as const) {
      const answer = await fetch(site.address + path, { headers: { 'accept-encoding': taken } })
      expect([path, taken, answer.headers.get('content-encoding')]).toEqual([path, taken, coding])
      expect(answer.headers.get('vary')).toContain('accept-encoding')
      // Each page has a nonce of its own.
      texts.add((await answer.text()).replace(/nonce="[^"]*"/g, ''))
    }
    expect(texts.size, path).toBe(1)
  }
})

test('an address that nothing answers says so, and a monitor is answered', async ({ request, site }) => {
  for (const path of ['/api/nothing', '/api/students/1/nothing']) {
    const answer = await request.get(site.address + path)
    expect([path, answer.status(), ((await answer.json()) as Answer).code]).toEqual([
      path,
      404,
      'noSuchAddress'
    ])
  }
  expect((await request.get(`${site.address}/api/session`)).headers()['cache-control']).toBe('no-store')
  expect(await (await request.get(`${site.address}/healthz`)).text()).toBe('ok')
  expect((await request.get(`${site.address}/readyz`)).status()).toBe(200)
})

test('a known address says which methods it answers, and a page is only read', async ({ request, site }) => {
  const cases: [string, string, string][] = [
    ['PUT', '/api/session', 'GET, POST, DELETE'],
    ['POST', '/api/students/1', 'GET'],
    ['PATCH', '/api/students/1/routes/2', 'POST, DELETE'],
    ['POST', '/students/1/today', 'GET, HEAD']
  ]
  for (const [method, path, allow] of cases) {
    const answer = await request.fetch(site.address + path, { method })
    expect([path, answer.status(), answer.headers().allow]).toEqual([path, 405, allow])
    expect(((await answer.json()) as Answer).code).toBe('noSuchMethod')
  }
})

test('an address that makes no sense gives a clear refusal', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  const status = async (path: string) => (await page.request.get(`/api/${path}`)).status()
  expect(await status('students/x')).toBe(400)
  expect(await status('students/1/sheet?term=XX')).toBe(400)
  expect(await status('students/1/sheet?term=AU99')).toBe(422)
  expect(await status('catalog/ENVI-999')).toBe(404)
  expect(await status('terms/AUTUMN/offer')).toBe(400)
  expect(await status('terms/AUTUMN/seats')).toBe(400)
  expect(await status('news?after=soon')).toBe(400)
  expect(await status('students/1/sheet')).toBe(400)
  await leave(page)
})

test('nobody gets past the door, and nobody into another record', async ({ site }) => {
  const stranger = await visit(site)
  for (const path of ['catalog', 'students/1', 'desk', 'openings', 'terms/AU27/offer', 'news']) {
    expect((await stranger.request.get(`/api/${path}`)).status(), path).toBe(401)
  }
  expect(
    (
      await stranger.request.post('/api/session', { data: { name: 'imke.varga', password: 'guess' } })
    ).status()
  ).toBe(401)
  await leave(stranger)

  const bram = await enter(site, 'bram.ostrander')
  expect((await bram.request.get('/api/students/1')).status()).toBe(403)
  expect((await bram.request.get('/api/students/99999')).status()).toBe(403)
  expect((await post(bram.request, 'students/1/route', add(fine))).status).toBe(403)
  expect((await post(bram.request, 'students/1/runs', { term: 'AU27', courses: ['ENDA 310'] })).status).toBe(
    403
  )
  expect((await post(bram.request, 'students/4/sign-off', { term: 'AU27' })).status).toBe(403)
  const asked = { kind: 'waiver', course: 'ENDA 410', reason: 'took its like elsewhere' }
  expect((await post(bram.request, 'students/1/requests', asked)).status).toBe(403)
  expect((await bram.request.get('/api/students/1/dates')).status()).toBe(403)
  expect((await post(bram.request, 'requests/answers', { requests: [1], answer: 'given' })).status).toBe(403)
  await leave(bram)

  const casimir = await enter(site, 'casimir.boyle')
  expect((await casimir.request.get('/api/students/1')).status()).toBe(403)
  expect((await post(casimir.request, 'students/1/sign-off', { term: 'AU27' })).status).toBe(403)
  await leave(casimir)

  const nell = await enter(site, 'nell.fairweather')
  expect((await nell.request.get('/api/students/1')).status()).toBe(200)
  expect((await post(nell.request, 'students/1/sign-off', { term: 'AU27' })).status).toBe(403)
  await leave(nell)
})

test('the session cookie says nothing, is http-only and same-site', async ({ site }) => {
  const page = await enter(site, 'imke.varga')
  const [cookie] = await page.context().cookies()
  expect(cookie).toMatchObject({ name: 'ridgeway', httpOnly: true, sameSite: 'Strict' })
  expect(cookie!.value).not.toContain('imke')
  await page.request.delete('/api/session')
  expect((await page.request.get('/api/students/1')).status()).toBe(401)
  await leave(page)
})
