/**
 * Requests that nobody sends on purpose: every endpoint with a body or a place in its address, bodies bent from such as
 * are right or made of anything, from seeds. None may be answered with a failure of ours, or not at all.
 */
import { dice } from '../../core/degree/best/testing/cases'
import { ACCESS } from '#server/http/access'
import { LONG } from '../long'
import { faultOf } from './described'
import { enter, expect, test } from './site'

/** The demo needs some 60 MB of it; what were kept of each request would soon be more than the rest. */
test.use({ scenario: 'fuzz', heapMost: 88 })

const REQUESTS = LONG ? 100_000 : 400
const AT_ONCE = 8
const HUNG_MS = 20_000
const MALFORMED = 400

type Roll = () => number
const pick = <T>(roll: Roll, list: readonly T[]): T => list[Math.floor(roll() * list.length)]!

const COURSE = {
  ...{ code: 'AU 27', title: 'Tides', description: '', credits: 3, creditsMost: 4, level: 'undergraduate' },
  ...{
    yearLevel: 2,
    seasons: ['autumn'],
    years: 'odd',
    prerequisite: 'ENVI 101 (C) or permission',
    fee: 2.5
  },
  ...{ repeatable: false, categories: ['lab'], equivalents: [], exclusive: ['SOIL 220'] }
}

/** Bodies that are right, or nearly, by the end of the address. */
const RIGHT: Record<string, unknown[]> = {
  'POST /api/session': [{ name: 'nobody', password: 'guess' }],
  'POST /api/session/link': [{ name: 'imke.varga' }],
  'POST /api/clock': [{ mode: 'standing', at: '2027-04-09T13:00:00Z' }, { mode: 'real' }],
  'POST /api/account/second-step/begin': [{ present: 'guess' }],
  'POST /api/account/second-step/off': [{ present: 'guess' }],
  'POST /api/account/second-step': [{ code: '123 456' }],
  'POST /api/account/password': [{ present: 'guess', next: 'five long words here' }],
  'POST /api/terms/:code/grades': [{ seed: 7 }],
  'POST /api/students/:id/route': [
    { version: 1, change: { kind: 'add', planned: { course: 'HERI 320', term: 'SP28', credits: 3 } } },
    { version: 1, change: { kind: 'move', course: 'ENDA 310', from: 'AU27', to: 'SP28' } },
    { route: 1, version: 3, change: { kind: 'several', changes: [] } }
  ],
  'POST /api/students/:id/route/step': [{ version: 1, step: 'undo' }],
  'POST /api/students/:id/route/return': [{ route: 1, version: 2, to: 1 }],
  'POST /api/students/:id/routes': [{ name: 'Abroad', copyOf: 1 }],
  'POST /api/students/:id/routes/:route': [{ name: 'Abroad', note: 'later', chosen: true }],
  'POST /api/students/:id/carry': [
    { credits: 15, least: 12, hours: 30, outside: 10, target: 'SP29', terms: [] },
    { credits: null, least: null, hours: null, outside: null, target: null, terms: [{ term: 'AU27' }] }
  ],
  'POST /api/students/:id/terms/:term': [{ text: 'quiet' }],
  'POST /api/students/:id/courses/:course': [{ starred: true, note: null }],
  'POST /api/students/:id/program': [{ program: 'ENVD', answer: 'confirmed' }],
  'POST /api/students/:id/picks': [{ term: 'AU27', picks: [{ course: 'ENDA 310', sections: [] }] }],
  'POST /api/students/:id/weeks': [{ term: 'AU27', name: 'Early' }],
  'POST /api/students/:id/weeks/:week': [{ name: 'Late', goingWith: true }],
  'POST /api/students/:id/keep-free': [
    { hours: [{ name: 'work', days: [1, 3], start: 600, end: 720, hard: true }] }
  ],
  'POST /api/students/:id/week-habits': [{ wishes: [{ kind: 'fewestDays' }], travelHolds: true }],
  'POST /api/students/:id/runs': [{ term: 'AU27', courses: ['ENDA 310'] }],
  'POST /api/students/:id/placements': [
    { term: 'AU27', sections: ['L9SQG'], setAside: ['notOpen', 'signOff'], consent: 'They asked for it.' }
  ],
  'POST /api/terms/:code/placing': [
    { group: { kind: 'handedIn' }, setAside: ['notOpen'], from: 0, taken: { L9SQG: 2 } },
    { group: { kind: 'block', block: 'heron' } },
    { group: { kind: 'opening', opening: 1 } }
  ],
  'POST /api/students/:id/sheet': [
    {
      term: 'AU27',
      order: ['ENDA 310', 'MATH 231'],
      leftOut: ['WRIT 215'],
      drops: ['SOIL 220'],
      whole: true,
      armed: true
    }
  ],
  'POST /api/students/:id/agreement': [{ term: 'AU27', text: 'as I read them' }],
  'POST /api/students/:id/fallbacks': [
    { term: 'AU27', course: 'ENDA 310', list: [{ kind: 'line' }], onlyWith: 'MATH 231' }
  ],
  'POST /api/demo/morning': [{ students: 0 }],
  'POST /api/sections/:section/cancel': [{ reason: 'too few students' }],
  'POST /api/accounts': [
    {
      name: 'Vesna Aldous',
      signIn: 'vesna.aldous',
      role: 'registrar',
      mail: 'vesna.aldous@harrowmere.example'
    }
  ],
  'POST /api/welcome/:key': [{ next: 'a long and winding lane' }],
  'POST /api/college': [
    {
      ...{ part: 'frame', version: 1, name: 'Elsewhere', timeZone: 'America/Halifax' },
      campuses: [{ id: 1, code: 'HILL', name: 'Hill' }],
      travel: [{ from: 'HILL', to: 'HILL', minutes: 5 }]
    },
    { part: 'rooms', version: 1, buildings: [{ id: null, campus: 'HILL', name: 'Mill', rooms: [] }] },
    { part: 'subjects', version: 1, departments: [], subjects: [] },
    {
      part: 'categories',
      version: 1,
      categories: [{ id: null, family: 'More', code: 'more', title: 'More' }]
    },
    { part: 'grades', version: 1, grades: [{ grade: 'A', points: 4, result: 'earned', rank: 4 }] }
  ],
  'POST /api/guidance': [
    { about: 'course', key: 'ENDA 310', title: 'Bring boots', text: 'The ground is wet.', link: null },
    { about: 'everybody', title: 'First year', text: 'Read this.', link: 'https://harrowmere.example/first' }
  ],
  'POST /api/terms/new': [
    { code: 'WI28', name: 'Winter 2028', season: 'winter', start: '2028-01-03', end: '2028-01-14' }
  ],
  'POST /api/connections/tokens': [{ name: 'Bursar', scopes: ['holds.change', 'students.read'], days: 30 }],
  'POST /api/connections/webhooks': [
    { name: 'Timetable', address: 'http://127.0.0.1:9/told', types: ['seats.changed', 'catalog.changed'] }
  ],
  'POST /api/guidance/:guidance': [
    { about: 'finding', key: 'hold', title: 'Holds', text: 'The office in Slate Hall lifts most of them.' }
  ],
  'POST /api/imports': [
    { name: 'a set', files: [{ name: 'orgs.csv', text: 'sourcedId,name,type\no1,Elsewhere,school' }] },
    {
      name: 'a set',
      files: [{ name: 'courses.csv', text: 'sourcedId,title,courseCode,orgSourcedId\nc,d,ENVI 1,e' }]
    }
  ],
  'POST /api/imports/:import/apply': [{ leaveOut: ['orgs'], lines: [{ table: 'users', line: 3 }] }, {}],
  'POST /api/catalog': [{ ...COURSE, code: 'TIDE 240' }],
  'POST /api/catalog/:code': [{ ...COURSE, version: 1 }],
  'POST /api/catalog/effect': [{ ...COURSE, from: 0 }],
  'POST /api/catalog/lists': [
    { name: 'tidal', catalogYear: '2040-41', title: 'Tidal courses', from: 'ENVI 300-499' }
  ],
  'POST /api/programs/drafts': [
    { of: 'version', version: 1, catalogYear: '2031-32' },
    { of: 'new', code: 'WRIN', title: 'Minor in Writing', kind: 'minor', catalogYear: '2027-28' }
  ],
  'POST /api/programs/drafts/:draft': [{ text: 'code: ENVD\nareas: []', version: 1 }],
  'POST /api/programs/drafts/:draft/effect': [{ text: 'code: ENVD', against: 'from', students: [1, 3] }],
  'POST /api/programs/drafts/:draft/publication': [{ version: 1 }],
  'POST /api/sections/:section/rules': [{ line: 10, fee: 0, instructors: [], reserved: [] }],
  'POST /api/terms/:code/courses/:course/sections': [
    {
      ...{ session: 'FULL', campus: 'HILL', mode: 'inPerson', rules: { line: 5, fee: 0 } },
      parts: [{ kind: 'lecture', days: [2, 4], start: 600, end: 675, seats: 20 }]
    }
  ],
  'POST /api/sections/:section/seats': [{ seats: 40 }],
  'POST /api/sections/:section/like': [
    { parts: [{ of: 'L9SQG', days: [2, 4], start: 480, end: 555, seats: 20, room: null }], instructor: null }
  ],
  'POST /api/sections/:section/move': [{ days: [2, 4], start: 600, end: 675 }],
  'POST /api/students/:id/payments': [{ term: 'AU27', amount: 500 }],
  'POST /api/students/:id/exceptions': [
    { kind: 'waiver', program: 'ENVD', need: 'speaking', reason: 'did it elsewhere' }
  ],
  'POST /api/students/:id/sign-off': [
    { term: 'AU27' },
    {
      term: 'AU27',
      creditsLeast: 12,
      creditsMost: 17,
      alternatives: ['SOIL 220'],
      together: 'those-of-today',
      conditions: [
        { is: 'leastGrade', course: 'ENDA 325', of: 'STAT 212', grade: 'C' },
        { is: 'notBoth', course: 'ENDA 310', other: 'MATH 231' }
      ],
      until: '2027-05-01'
    }
  ],
  'POST /api/openings/:opening': [{ opens: 1807614000000 }],
  'POST /api/terms/:code/prices': [
    {
      version: 1,
      prices: {
        tuition: [
          { level: 'undergraduate', residency: 'resident', bands: [{ from: 0, flat: 0, perCredit: 40000 }] }
        ],
        fees: [{ title: 'Library', amount: 3000 }],
        releasesUnpaid: true
      }
    },
    { version: 1, prices: null }
  ],
  'POST /api/openings': [
    {
      ...{ term: 'SU27', title: 'seniors', opens: 1807614000000, standings: ['senior'] },
      ...{ programs: ['ENVD'], blocks: [], student: 'H204007' }
    }
  ],
  'POST /api/students/:id/entries': [
    {
      reason: 'As the test office says.',
      entry: { kind: 'test', test: 'MPT', score: 71, takenOn: '2026-08-20' }
    }
  ],
  'POST /api/students/:id/entries/effect': [
    {
      reason: 'As the other college says.',
      entry: { kind: 'credit', course: 'HERI 105', credits: 3, grade: 'TR', origin: 'transfer' }
    }
  ],
  'POST /api/terms': [{ like: ['SU30'] }],
  'POST /api/terms/:code': [
    {
      // Another version than there is: nothing is changed.
      ...{ version: 99, name: 'Autumn 2027', start: '2027-08-30', end: '2027-12-17' },
      ...{ addEnds: '2027-09-11T00:00', dropFreeEnds: '2027-09-11T00:00', dropEnds: '2027-11-20T00:00' },
      ...{ linesClose: '2027-09-09T00:00', intentionsDue: null, graduateBy: '2027-11-19T00:00' },
      ...{ paymentDue: '2027-08-02', refunds: [{ until: '2027-09-04T00:00', percent: 100 }] },
      sessions: [
        {
          ...{ code: 'FULL', name: 'Full term', half: 'full', start: '2027-08-30', end: '2027-12-17' },
          ...{ addEnds: null, dropFreeEnds: null, dropEnds: '2027-11-20T00:00' }
        }
      ],
      holidays: [{ date: '2027-09-06', name: 'Recess' }],
      ...{ loadMost: 18, signOffPolicy: 'term', waitlistPolicy: 'offer', arming: true },
      ...{ offerHours: 48, offerHoursNear: 12, agreement: 'With a seat you take on what it costs.' }
    }
  ],
  'POST /api/terms/:code/copy': [{ from: 'AU26' }],
  'POST /api/terms/:code/openings': [{ from: 'SU27' }],
  'POST /api/hold-kinds': [
    {
      ...{ title: 'Key not returned', office: 'Housing', howToLift: 'Bring the key to Housing.' },
      ...{ stopsRegistration: false, stopsTranscript: true, takesAmount: false }
    }
  ],
  'POST /api/hold-kinds/:kind': [
    {
      ...{ title: 'Key not returned', office: 'Housing', howToLift: 'Bring the key to Housing.' },
      ...{ stopsRegistration: false, stopsTranscript: true, takesAmount: false }
    }
  ],
  'POST /api/holds': [{ kind: 1, students: [{ number: 'H204007', amount: 12.5 }] }],
  'POST /api/desk/views': [{ name: 'Seniors', reason: 'soon', program: null, standing: 'senior' }],
  'POST /api/students/:id/graduation': [{ term: 'SP28' }],
  'POST /api/students/:id/transcripts': [
    { to: 'Tarn Valley Water Board', email: 'people@tarnvalley.example', after: 'SP27' }
  ],
  'POST /api/students/:id/intentions': [{ term: 'SP28' }],
  'POST /api/students/:id/review': [
    { term: 'AU27', note: 'too much?', answers: [{ question: 'Who supervises?', answer: 'nobody yet' }] }
  ],
  'POST /api/students/:id/review/answer': [{ term: 'AU27', missing: 'a course in writing' }],
  'POST /api/students/:id/remarks': [
    { to: 'thread', thread: 1, text: 'so it is' },
    { to: 'matter', about: { is: 'course', key: 'ENDA 310' }, advisorsOnly: false, text: 'why there?' }
  ],
  'POST /api/students/:id/requests': [
    { kind: 'full', section: 'L9SQG', reason: 'needed to finish' },
    { kind: 'waiver', course: 'ENDA 410', reason: 'took its like elsewhere' },
    {
      ...{ kind: 'substitution', program: 'ENVD', need: 'speaking', course: 'HERI 320' },
      reason: 'the talk was given there'
    }
  ],
  'POST /api/account/mail-choices': [{ advising: 'daily', appointments: 'never' }],
  'POST /api/groups': [
    {
      ...{ title: 'the autumn', term: 'AU27', students: [1, 7], courses: ['WRIT 215'], sequence: true },
      task: { what: 'ask for a review', due: '2027-04-20' }
    }
  ],
  'POST /api/desk/hand-over': [{ students: [1, 7], to: 4, note: 'they know' }],
  'POST /api/requests/answers': [{ requests: [1], answer: 'given', until: '2027-05-01', words: 'this once' }],
  'POST /api/requests/:request/hand-on': [{ to: 'registrar', words: 'it is about seats' }],
  'POST /api/students/:id/threads/:thread': [{ settled: true, readUpTo: 1 }],
  'POST /api/students/:id/section-suggestions': [{ term: 'AU27', course: 'ENDA 310', sections: ['L9SQG'] }],
  'POST /api/students/:id/section-suggestions/:suggestion/answer': [{ answer: 'declined' }],
  'POST /api/students/:id/suggestions': [
    {
      route: 1,
      version: 1,
      change: { kind: 'move', course: 'HERI 210', from: 'SP28', to: 'AU28' },
      why: 'room'
    }
  ],
  'POST /api/students/:id/suggestions/answers': [
    { route: 1, version: 1, suggestions: [1], answer: 'accepted', words: null }
  ],
  'POST /api/students/:id/suggestions/:suggestion': [{ why: 'it makes room' }],
  'POST /api/students/:id/appointments': [
    { advisor: 1, date: '2027-04-15', start: 780, length: null, place: null, about: 'the minor', bring: null }
  ],
  'POST /api/students/:id/appointments/:appointment': [
    { act: 'move', date: '2027-04-20', start: 780, place: null },
    { act: 'cancel', words: 'ill' }
  ],
  'POST /api/students/:id/talks': [{ on: '2027-04-02', how: 'byPhone', summary: 'the summer' }],
  'POST /api/hours': [
    {
      times: [
        {
          weekday: 2,
          on: null,
          start: 780,
          end: 900,
          length: 30,
          place: 'Slate 118',
          from: null,
          until: null
        }
      ],
      away: [{ from: '2027-05-03', to: '2027-05-07' }]
    }
  ],
  'POST /api/students/:id/agreed': [{ what: 'ask the field office', who: 'student', due: '2027-04-20' }],
  'POST /api/students/:id/agreed/:line': [{ done: true }]
}
const ODD: unknown[] = [
  null,
  true,
  -1,
  0,
  1.5,
  1e308,
  2 ** 53,
  '',
  ' ',
  'null',
  'AU27',
  'AU99',
  'ENDA 310',
  'x'.repeat(5000),
  '\u0000',
  '\ud83c\udf32',
  '\u202e',
  '\ud800',
  "'; drop table account; --",
  '9999-12-31T23:59:59Z',
  [],
  {},
  [[[[[[]]]]]],
  { $ne: 1 },
  JSON.parse('{"__proto__":{"role":"registrar"},"constructor":{"prototype":{}}}')
]

/** A value with one of its places bent. */
function bent(roll: Roll, value: unknown): unknown {
  if (typeof value !== 'object' || value === null || roll() < 0.2) return pick(roll, ODD)
  if (Array.isArray(value)) {
    if (roll() < 0.3)
      return Array.from({ length: pick(roll, [0, 2, 300]) }, () => value[0] ?? pick(roll, ODD))
    return value.map((one, i) => (i === 0 ? bent(roll, one) : one))
  }
  const keys = Object.keys(value)
  const key = pick(roll, [...keys, 'extra'])
  if (roll() < 0.2) return Object.fromEntries(Object.entries(value).filter(([name]) => name !== key))
  return { ...value, [key]: bent(roll, (value as Record<string, unknown>)[key]) }
}

const PLACE = [
  '1',
  '2',
  '7',
  '318',
  '999999',
  '0',
  '-1',
  '1.5',
  'x',
  '%00',
  'AU27',
  'SP28',
  'ENDA-410',
  'ENDA%20310'
]
const QUERY = [
  '',
  '?term=AU27',
  '?term=AU99',
  '?term=',
  '?courses=ENDA%20310',
  '?week=1&term=AU27',
  '?term=AU27&term=SP28',
  '?x[]=1'
]
const LINES = Object.keys(ACCESS).filter(
  (line) =>
    line.includes(' /api/') &&
    // People stay signed in.
    !/DELETE \/api\/(session|account)/.test(line) &&
    (line.startsWith('POST') || line.includes(':'))
)

function requestOf(seed: number) {
  const roll = dice(seed)
  const line = pick(roll, LINES)
  const [method, pattern] = line.split(' ') as [string, string]
  const right = roll() < 0.7
  const path = pattern.replace(/:(\w+)/g, (_, name: string) => {
    if (!right) return pick(roll, PLACE)
    if (name === 'section') return 'L9SQG'
    return name === 'term' || name === 'code' ? 'AU27' : name === 'course' ? 'ENDA-410' : '1'
  })
  const body = RIGHT[line] ? bent(roll, pick(roll, RIGHT[line])) : roll() < 0.5 ? pick(roll, ODD) : {}
  const text = roll() < 0.03 ? '{"a":' : JSON.stringify(body)
  return {
    line,
    method,
    path: path + (roll() < 0.3 ? pick(roll, QUERY) : ''),
    body: method === 'POST' ? text : undefined
  }
}

test(`${REQUESTS} requests from seeds: none fails, none hangs, each 400 names its field, memory stays`, async ({
  site
}) => {
  test.setTimeout(LONG ? 3_600_000 : 180_000)
  const names = ['imke.varga', 'orla.denholt', 'edda.whitlock']
  const cookies = await Promise.all(
    names.map(async (name) => {
      const page = await enter(site, name)
      const [cookie] = await page.context().cookies()
      await page.close()
      return `${cookie!.name}=${cookie!.value}`
    })
  )
  const server = site.pid()
  const told: string[] = []
  const statuses = new Map<number, number>()
  let next = 0
  const work = async () => {
    while (next < REQUESTS) {
      const seed = next++
      const { line, method, path, body } = requestOf(seed)
      const say = (what: string) =>
        told.push(`${seed}: ${line} ${path} ${body?.slice(0, 200) ?? ''}: ${what}`)
      try {
        const answer = await fetch(site.address + path, {
          method,
          headers: {
            cookie: cookies[seed % cookies.length]!,
            ...(body !== undefined && { 'content-type': 'application/json' })
          },
          ...(body !== undefined && { body }),
          signal: AbortSignal.timeout(HUNG_MS)
        })
        const text = await answer.text()
        const { status } = answer
        statuses.set(status, (statuses.get(status) ?? 0) + 1)
        if (status >= 500) say(`${status} ${text}`)
        const fault = text && faultOf(method, path.split('?')[0]!, status, text)
        if (fault) say(fault)
        if (status !== MALFORMED) continue
        const { fields } = JSON.parse(text) as { fields?: { field: string; message: string }[] }
        if (!fields?.length || fields.some((one) => !one.field || !one.message)) say(`no field in ${text}`)
      } catch (error) {
        say(String(error))
      }
    }
  }
  await Promise.all(Array.from({ length: AT_ONCE }, work))
  expect(told).toEqual([])
  // All kinds of answers were reached, and the server is the one that there was.
  for (const status of [200, MALFORMED, 403, 409, 422])
    expect(statuses.get(status) ?? 0, String(status)).toBeGreaterThan(REQUESTS / 300)
  expect(site.pid()).toBe(server)
})
