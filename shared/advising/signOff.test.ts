import { describe, expect, it } from 'vitest'
import { courseCode, termCode } from '#core/ids'
import { isClear } from './desk'
import type { DeskRow, SignOffView } from './responses'
import { reviewRulesOf, signOffPolicyOf } from './review'
import { comparedTerm, hasChanged, rangeOf, sinceSignOff, sinceText } from './signOff'
import { isOverdue } from './talk'
import { conditionText, signOffTerms } from './texts'

const ZONE = 'America/New_York'
const AUTUMN = termCode('AU27')
const [A, B, C] = ['ENDA 310', 'SOIL 220', 'MATH 231'].map(courseCode) as [
  ReturnType<typeof courseCode>,
  ReturnType<typeof courseCode>,
  ReturnType<typeof courseCode>
]
const given = (over: Partial<SignOffView> = {}): SignOffView => ({
  term: AUTUMN,
  by: 'Orla Denholt',
  at: 0,
  courses: [A, B],
  alternatives: [],
  creditsLeast: 13,
  creditsMost: 18,
  conditions: [],
  until: null,
  together: null,
  ...over
})

describe('the usual range of a sign-off', () => {
  it('is what is planned, a course less or more, within the load', () => {
    const planned = [4, 3, 4, 3, 3].map((credits) => ({ credits }))
    expect(rangeOf(planned, 18)).toEqual({ least: 13, most: 18 })
    expect(rangeOf(planned, 24)).toEqual({ least: 13, most: 21 })
    expect(rangeOf([{ credits: 3 }], 18)).toEqual({ least: 0, most: 6 })
    expect(rangeOf([], 18)).toEqual({ least: 0, most: 0 })
  })
})

describe('a term since its sign-off', () => {
  const since = (signOff: SignOffView, now: number) =>
    sinceSignOff(
      {
        signOffs: [signOff],
        route: { courses: [{ course: A, term: AUTUMN }] },
        held: [{ course: C, term: AUTUMN }]
      } as unknown as Parameters<typeof sinceSignOff>[0],
      AUTUMN,
      now
    )
  it('is compared with what is planned and held', () => {
    const found = since(given(), 5)
    expect(hasChanged(found)).toBe(true)
    expect(sinceText(found!)).toBe('MATH 231 added, SOIL 220 taken out')
  })
  it('is signed off no more from its end on', () => {
    expect(since(given({ until: 10 }), 9)).toBeDefined()
    expect(since(given({ until: 10 }), 10)).toBeUndefined()
  })
})

describe('an alternative', () => {
  const since = (alternatives: (typeof A)[], ...planned: (typeof A)[]) =>
    sinceSignOff(
      {
        signOffs: [given({ alternatives })],
        route: { courses: planned.map((course) => ({ course, term: AUTUMN })) },
        held: []
      } as unknown as Parameters<typeof sinceSignOff>[0],
      AUTUMN,
      5
    )!
  it('stands for one course that is gone, and for no more', () => {
    expect(hasChanged(since([C], A, C))).toBe(false)
    expect(since([C], A, C).inPlace).toEqual([C])
    expect(sinceText(since([C], C))).toBe('SOIL 220 taken out')
    expect(sinceText(since([], A, C))).toBe('MATH 231 added, SOIL 220 taken out')
  })
  it('is shown so beside what is planned, picked and registered', () => {
    const rows = comparedTerm({
      signOff: given({ alternatives: [C] }),
      planned: [A, C],
      picked: [
        { course: A, number: '01' },
        { course: A, number: 'L2' }
      ],
      held: [{ course: C, number: '02' }]
    })
    expect(rows).toEqual([
      { course: A, signed: 'yes', planned: true, picked: '01, L2', held: '' },
      { course: C, signed: 'inPlace', planned: true, picked: '', held: '02' },
      { course: B, signed: 'yes', planned: false, picked: '', held: '' }
    ])
  })
})

describe('what programs ask for', () => {
  const program = (covers: 'term' | 'degree', questions: string[], policy?: 'none' | 'strict' | 'anew') => ({
    review: { covers, questions },
    policies: policy ? [{ term: AUTUMN, policy }] : []
  })
  it('is the whole way where one of them says so, and each question once', () => {
    expect(reviewRulesOf([program('term', ['Why?', 'Where?']), program('degree', ['Why?'])])).toEqual({
      covers: 'degree',
      questions: ['Why?', 'Where?']
    })
    expect(reviewRulesOf([])).toEqual({ covers: 'term', questions: [] })
  })
  it.each([
    [[], 'term'],
    [['none'], 'none'],
    [['none', undefined], 'term'],
    [['strict', 'none'], 'strict'],
    [['strict', 'anew'], 'anew']
  ] as const)('is the strictest sign-off of %j: %s', (policies, expected) => {
    const programs = policies.map((one) => program('term', [], one))
    const record = { programs } as unknown as Parameters<typeof signOffPolicyOf>[0]
    expect(signOffPolicyOf(record, { code: AUTUMN, signOffPolicy: 'term' })).toBe(expected)
    expect(signOffPolicyOf(record, { code: termCode('SP28'), signOffPolicy: 'none' })).toBe('none')
  })
})

describe('what is said of a sign-off', () => {
  it('names its range, every condition and its last day', () => {
    expect(conditionText({ is: 'leastGrade', course: A, of: C, grade: 'C' })).toBe(
      'ENDA 310 only with C or better in MATH 231'
    )
    expect(conditionText({ is: 'onlyWith', course: A, other: B })).toBe('ENDA 310 only with SOIL 220')
    const conditions = [{ is: 'notBoth' as const, course: A, other: B }]
    expect(signOffTerms(given({ conditions, until: Date.parse('2027-05-01T04:00:00Z') }), ZONE)).toBe(
      '13 to 18 credits, on condition: not both ENDA 310 and SOIL 220, until the end of Fri 30 Apr 2027'
    )
  })
})

describe('what was agreed', () => {
  it('is overdue from the day after its last day, unless it is done', () => {
    const line = { due: '2027-04-08', done: null }
    expect(isOverdue(line, '2027-04-08')).toBe(false)
    expect(isOverdue(line, '2027-04-09')).toBe(true)
    expect(isOverdue({ ...line, done: { by: 'Imke Varga', at: 0 } }, '2027-04-09')).toBe(false)
    expect(isOverdue({ due: null, done: null }, '2027-04-09')).toBe(false)
  })
})

describe('a term that is clear to be signed off', () => {
  const row = {
    purpose: 'program',
    planned: 5,
    findings: 0,
    holds: 0,
    requestsAsked: 0,
    unread: 0,
    reviews: [{ term: AUTUMN, askedAt: 0 }]
  } as unknown as DeskRow
  it('is asked for, planned, and nothing speaks against it', () => {
    expect(isClear(row, AUTUMN)).toBe(true)
    const not: Partial<DeskRow>[] = [
      { purpose: 'support' },
      { planned: 0 },
      { findings: 1 },
      { holds: 1 },
      { requestsAsked: 1 },
      { unread: 1 },
      { reviews: [] },
      { reviews: [{ term: termCode('SP28'), askedAt: 0 }] }
    ]
    for (const over of not) expect(isClear({ ...row, ...over }, AUTUMN), JSON.stringify(over)).toBe(false)
  })
})
