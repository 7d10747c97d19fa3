import { describe, expect, it } from 'vitest'
import { termCode } from '../ids'
import { term } from '../testing/build'
import type { Climb } from './climb'
import { paceOf, programPace } from './pace'

const terms = ['AU25', 'SP26', 'SU26', 'AU26', 'SP27', 'SU27', 'AU27', 'SP28', 'AU28', 'SP29'].map((code) =>
  term(code)
)
const point = (code: string, reached: number, status: Climb['points'][number]['status'] = 'earned') => ({
  ...{ term: terms.find((one) => one.code === code)!, reached, gained: 0, status }
})
const over = (last: string) => {
  const at = terms.findIndex((one) => one.code === last)
  return (one: { code: string }) => terms.findIndex((other) => other.code === one.code) <= at
}
const about = { goal: 120, length: 8, terms, aim: termCode('SP29') }

describe('the pace of a student', () => {
  it('is that of the program with eight terms of fifteen credits behind them', () => {
    const climb = { start: 0, points: [point('AU25', 15), point('SP26', 30), point('AU26', 45)] }
    expect(paceOf(climb, { ...about, isOver: over('AU26') })).toEqual({
      ...{ earned: 45, terms: 3, ahead: 0 },
      // Five regular terms are left up to the aim, of fifteen credits each.
      byAim: 120
    })
  })
  it('counts what was brought along, which is no pace', () => {
    const climb = { start: 12, points: [point('AU26', 24), point('SP27', 36, 'underWay')] }
    expect(paceOf(climb, { ...about, isOver: over('AU26') })).toEqual({
      ...{ earned: 24, terms: 1, ahead: 9, byAim: 24 + 5 * 12 }
    })
  })
  it('counts terms in which nothing was earned, and no summers', () => {
    const climb = { start: 0, points: [point('AU25', 12), point('SU26', 16), point('AU26', 28)] }
    const pace = paceOf(climb, { ...about, isOver: over('SP27') })
    expect([pace.terms, pace.ahead]).toEqual([4, 28 - 60])
  })
  it('is not known before a term is over, and is behind no more than the whole', () => {
    const climb = { start: 6, points: [point('AU25', 21, 'underWay')] }
    expect(paceOf(climb, { ...about, isOver: () => false })).toEqual({
      ...{ earned: 6, terms: 0, ahead: 6, byAim: null }
    })
    const long = { start: 0, points: [point('AU25', 110)] }
    expect(paceOf(long, { ...about, aim: null, isOver: () => true })).toMatchObject({
      ...{ terms: 8, ahead: -10, byAim: null }
    })
  })
  it('of a program is by its sequence, or fifteen credits', () => {
    expect([programPace(60, 4), programPace(36, undefined)]).toEqual([15, 15])
  })
})
