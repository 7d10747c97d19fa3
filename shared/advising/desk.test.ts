import { describe, expect, it } from 'vitest'
import { studentId, termCode } from '#core/ids'
import { DESK_REASONS, DESK_SHORT, DESK_WORDS, deskReasons, inOrderOfNeed } from './desk'
import type { DeskRow } from './responses'

const HOUR = 3_600_000
const NOW = Date.parse('2027-04-09T13:40:00Z')
let last = 0
/** A student for whom nothing is to be done. */
const row = (name: string, over: Partial<DeskRow> = {}): DeskRow => ({
  ...{ id: studentId(++last), name, programs: 'BSc Env. Data', standing: 'junior', attendance: 'fullTime' },
  ...{ purpose: 'program', standsInFor: null, reviews: [], unread: 0, overdue: 0, requestsAsked: 0 },
  ...{ offerUntil: null, late: false, spoken: true, signedOffAt: 1, changedSince: false, planned: 5 },
  ...{ isBarred: false, together: null },
  ...{ findings: 0, outside: 0, needed: 0, holds: 0, opens: NOW + 72 * HOUR, adding: 'notYet' },
  climb: {
    ...{ goal: 120, points: [], usual: 15, aim: null },
    pace: { earned: 0, terms: 0, ahead: 0, byAim: null }
  },
  ...over
})
const review = (hours: number) => [{ term: termCode('AU27'), askedAt: NOW - hours * HOUR }]
const reasonsOf = (over: Partial<DeskRow>) => deskReasons(row('Anna', over), NOW).map((one) => one.reason)

describe('why a student is on the desk', () => {
  it('is nothing where nothing is to be done', () => {
    expect(reasonsOf({})).toEqual([])
  })

  it.each([
    ['offer', { offerUntil: NOW + 1 }],
    ['open', { adding: 'open', signedOffAt: null, isBarred: true, opens: NOW - 1 }],
    ['requests', { requestsAsked: 1 }],
    ['soon', { signedOffAt: null, isBarred: true }],
    ['asked', { reviews: review(1) }],
    ['words', { unread: 1 }],
    ['changed', { changedSince: true }],
    ['holds', { holds: 1 }],
    ['overdue', { overdue: 1 }],
    ['late', { late: true }],
    ['findings', { findings: 2 }],
    ['unplanned', { planned: 0 }],
    ['silent', { spoken: false }]
  ] as const)('is %s alone for %o', (reason, over) => {
    expect(reasonsOf(over as Partial<DeskRow>)).toEqual([reason])
  })

  it('ends with the offer, and begins a week before the opening', () => {
    expect(reasonsOf({ offerUntil: NOW })).toEqual([])
    expect(reasonsOf({ signedOffAt: null, isBarred: true, opens: NOW + 168 * HOUR })).toEqual([])
    expect(reasonsOf({ signedOffAt: null, isBarred: true, opens: NOW + 168 * HOUR - 1 })).toEqual(['soon'])
  })

  it('has words for each, on the boxes and in the list', () => {
    for (const reason of DESK_REASONS) expect(DESK_WORDS[reason] && DESK_SHORT[reason]).toBeTruthy()
  })
})

describe('the order of the desk', () => {
  it('is by the most urgent reason, then by what is due or was asked first, then by how many, then by name', () => {
    const rows = [
      row('Zoe'),
      row('Ada'),
      row('Finn', { findings: 1 }),
      row('Fay', { findings: 1, planned: 0 }),
      row('Late review', { reviews: review(2) }),
      row('Early review', { reviews: review(30) }),
      row('Opens later', { signedOffAt: null, isBarred: true, opens: NOW + 30 * HOUR }),
      row('Opens first', { signedOffAt: null, isBarred: true, opens: NOW + 3 * HOUR }),
      row('At the gate', { signedOffAt: null, isBarred: true, adding: 'open', opens: NOW - HOUR }),
      row('Offer', { offerUntil: NOW + HOUR, findings: 3 })
    ]
    const expected = [
      ...['Offer', 'At the gate', 'Opens first', 'Opens later', 'Early review', 'Late review'],
      ...['Fay', 'Finn', 'Ada', 'Zoe']
    ]
    expect(inOrderOfNeed(rows, NOW).map((one) => one.name)).toEqual(expected)
    expect(inOrderOfNeed(rows.toReversed(), NOW).map((one) => one.name)).toEqual(expected)
  })
})
