import type { APIRequestContext } from '@playwright/test'
import { enter, expect, test } from './site'

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
  ['students/1/program', { answer: 'wrong', program: 'ENVD' }, 'instead'],
  ['students/1/program', { answer: 'perhaps' }, 'answer'],
  ['students/1/exceptions', { kind: 'waiver', program: 'ENVD', need: 'speaking' }, 'reason'],
  ['students/1/exceptions', { kind: 'favour' }, 'kind'],
  [
    'students/1/exceptions',
    { kind: 'substitution', program: 'ENVD', need: 'x', reason: 'because', course: 'X' },
    'course'
  ],
  ['students/1/waivers/ENDA-410', { reason: 'no' }, 'reason'],
  ['students/1/waivers/nothing', { reason: 'took its like elsewhere' }, 'course'],
  ['students/1/waivers/ENDA-410/answer', { answer: 'perhaps' }, 'answer'],
  ['students/1/terms/AU27', { text: 12 }, 'text'],
  [
    'students/1/carry',
    { credits: 12, least: 15, hours: null, outside: null, target: null, terms: [] },
    'least'
  ],
  ['clock', { mode: 'standing', at: 'soon' }, 'at'],
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

test('a malformed body gives 400 with the field, and changes nothing', async ({ browser, site }) => {
  const page = await enter(browser, site, 'imke.varga')
  const before = await site.query('select version from route where id = 1')
  for (const [path, body, field] of MALFORMED) {
    const { status, body: answer } = await post(page.request, path, body)
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
  await page.context().close()
})

test('an address that makes no sense gives a clear refusal', async ({ browser, site }) => {
  const page = await enter(browser, site, 'imke.varga')
  const status = async (path: string) => (await page.request.get(`/api/${path}`)).status()
  expect(await status('students/x')).toBe(400)
  expect(await status('students/1/sheet?term=XX')).toBe(400)
  expect(await status('students/1/sheet?term=AU99')).toBe(422)
  expect(await status('catalog/ENVI-999')).toBe(404)
  expect(await status('terms/AUTUMN/offer')).toBe(400)
  expect(await status('terms/AU27/offer?courses=everything')).toBe(400)
  expect(await status('students/1/sheet')).toBe(400)
  await page.context().close()
})

test('nobody gets past the door, and nobody into another record', async ({ browser, site }) => {
  const stranger = await browser.newContext({ baseURL: site.address })
  for (const path of ['catalog', 'students/1', 'desk', 'openings', 'terms/AU27/offer?courses=ENDA%20310']) {
    expect((await stranger.request.get(`/api/${path}`)).status(), path).toBe(401)
  }
  expect(
    (
      await stranger.request.post('/api/session', { data: { name: 'imke.varga', password: 'guess' } })
    ).status()
  ).toBe(401)
  await stranger.close()

  const bram = await enter(browser, site, 'bram.ostrander')
  expect((await bram.request.get('/api/students/1')).status()).toBe(403)
  expect((await bram.request.get('/api/students/99999')).status()).toBe(403)
  expect((await post(bram.request, 'students/1/route', add(fine))).status).toBe(403)
  expect((await post(bram.request, 'students/1/runs', { term: 'AU27', courses: ['ENDA 310'] })).status).toBe(
    403
  )
  expect((await post(bram.request, 'students/4/sign-off', { term: 'AU27' })).status).toBe(403)
  const reason = { reason: 'took its like elsewhere' }
  expect((await post(bram.request, 'students/1/waivers/ENDA-410', reason)).status).toBe(403)
  expect((await bram.request.get('/api/students/1/dates')).status()).toBe(403)
  const granted = { answer: 'granted' }
  expect((await post(bram.request, 'students/4/waivers/GEOG-230/answer', granted)).status).toBe(403)
  await bram.context().close()

  const casimir = await enter(browser, site, 'casimir.boyle')
  expect((await casimir.request.get('/api/students/1')).status()).toBe(403)
  expect((await post(casimir.request, 'students/1/sign-off', { term: 'AU27' })).status).toBe(403)
  await casimir.context().close()

  const nell = await enter(browser, site, 'nell.fairweather')
  expect((await nell.request.get('/api/students/1')).status()).toBe(200)
  expect((await post(nell.request, 'students/1/sign-off', { term: 'AU27' })).status).toBe(403)
  await nell.context().close()
})

test('the session cookie is sealed, http-only and same-site', async ({ browser, site }) => {
  const page = await enter(browser, site, 'imke.varga')
  const [cookie] = await page.context().cookies()
  expect(cookie).toMatchObject({ name: 'ridgeway', httpOnly: true, sameSite: 'Strict' })
  expect(cookie!.value).not.toContain('imke')
  await page.request.delete('/api/session')
  expect((await page.request.get('/api/students/1')).status()).toBe(401)
  await page.context().close()
})
