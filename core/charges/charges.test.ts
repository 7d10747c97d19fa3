import { describe, expect, it } from 'vitest'
import { courseCode } from '../ids'
import { dice } from '../degree/best/testing/cases'
import {
  assess,
  assessedAfter,
  centsOf,
  paymentOf,
  postings,
  refundPercent,
  releaseDay,
  totalOf,
  tuitionFor,
  unpaidStep,
  type PricedSeat,
  type Posting,
  type TermPrices
} from './index'

/** What is owed after entries, by the accounts alone. */
function owedAfter(entries: readonly Posting[]): number {
  return entries.reduce(
    (sum, { amount, debit, credit }) =>
      sum + (debit === 'student' ? amount : 0) - (credit === 'student' ? amount : 0),
    0
  )
}

const FULL_UNTIL = Date.parse('2027-09-04T04:00:00Z')
const HALF_UNTIL = Date.parse('2027-09-18T04:00:00Z')
const resident = { level: 'undergraduate', residency: 'resident' } as const
const prices: TermPrices = {
  tuition: [
    {
      ...resident,
      bands: [
        { from: 0, flat: 0, perCredit: 37_000 },
        { from: 12, flat: 442_000, perCredit: 0 },
        { from: 18, flat: 442_000, perCredit: 37_000 }
      ]
    }
  ],
  fees: [{ title: 'Student services', amount: 26_500 }],
  refunds: [
    { until: FULL_UNTIL, percent: 100 },
    { until: HALF_UNTIL, percent: 50 }
  ],
  releasesUnpaid: true
}
const seat = (course: string, credits = 3, fee = 0): PricedSeat => ({
  course: courseCode(course),
  credits,
  fee
})

describe('tuition (flat between two loads, by the credit outside them: common practice)', () => {
  const of = (credits: number) => tuitionFor(prices.tuition[0], credits)
  it('goes by the credit below the flat range, and above it', () => {
    expect([0, 3, 11.5].map(of)).toEqual([0, 111_000, 425_500])
    expect([12, 15, 18].map(of)).toEqual([442_000, 442_000, 442_000])
    expect([18.5, 21].map(of)).toEqual([460_500, 553_000])
  })
  it('is nothing where a term has no rate for somebody', () => {
    expect(totalOf(assess(prices, { level: 'graduate', residency: 'resident' }, [seat('STAT 110')]))).toBe(
      26_500
    )
  })
})

describe('what is charged', () => {
  it('is nothing for no seat, and every fee once', () => {
    expect(assess(prices, resident, [])).toEqual([])
    expect(assess(prices, resident, [seat('SOIL 220', 4, 8_500), seat('STAT 110')])).toEqual([
      { item: 'tuition', amount: 259_000 },
      { item: 'fee Student services', amount: 26_500 },
      { item: 'course SOIL 220', amount: 8_500 }
    ])
  })
  it('takes amounts with two decimals to the cent', () => {
    expect([14.5, 0.1 + 0.2, 1.005].map(centsOf)).toEqual([1_450, 30, 100])
  })
})

describe('what is given back', () => {
  it('is whole, then half, then nothing, each until its instant', () => {
    const at = [FULL_UNTIL - 1, FULL_UNTIL, HALF_UNTIL - 1, HALF_UNTIL]
    expect(at.map((now) => refundPercent(prices, now))).toEqual([100, 50, 50, 0])
  })
  it('follows what the change makes cheaper: within the flat range a drop gives back the fee of its course only', () => {
    const five = [seat('SOIL 220', 4, 8_500), ...[1, 2, 3, 4].map((n) => seat(`STAT 11${n}`))]
    const before = assessedAfter(postings(new Map(), assess(prices, resident, five), 100))
    expect(postings(before, assess(prices, resident, five.slice(1)), 50)).toEqual([
      {
        kind: 'refund',
        item: 'course SOIL 220',
        assessed: -8_500,
        amount: 4_250,
        debit: 'fees',
        credit: 'student'
      }
    ])
  })
  it('is told once: what was not given back is not given back by the next change', () => {
    const entries = postings(new Map(), assess(prices, resident, [seat('STAT 110'), seat('HERI 110')]), 100)
    entries.push(...postings(assessedAfter(entries), assess(prices, resident, [seat('STAT 110')]), 50))
    expect(postings(assessedAfter(entries), assess(prices, resident, [seat('STAT 110')]), 100)).toEqual([])
    expect(owedAfter(entries)).toBe(222_000 - 55_500 + 26_500)
  })
  it('is rounded to the cent for the student', () => {
    const [back] = postings(new Map([['tuition', 101]]), [], 50)
    expect(back).toMatchObject({ assessed: -101, amount: 51 })
  })
})

describe('what is unpaid', () => {
  const due = 100
  const at = (today: number, ...notices: number[]) => ({ due, today, lastAdd: 140, notices })
  it('is told from two weeks before it is due, again from three days before, and lost the day after', () => {
    expect([85, 86].map((day) => unpaidStep(at(day)))).toEqual(['none', 'notice'])
    expect([86, 96, 97].map((day) => unpaidStep(at(day, 86)))).toEqual(['none', 'none', 'notice'])
    expect([97, 100, 101].map((day) => unpaidStep(at(day, 86, 97)))).toEqual(['none', 'none', 'release'])
    expect([80, 90, 99].map((day) => releaseDay(at(day)))).toEqual([101, 101, 103])
  })
  it('is not lost untold: who owes late has the same days from the first notice', () => {
    expect(unpaidStep(at(120))).toBe('notice')
    expect(unpaidStep(at(120, 120))).toBe('none')
    expect(unpaidStep(at(121, 120))).toBe('notice')
    expect([123, 124].map((day) => unpaidStep(at(day, 120, 121)))).toEqual(['none', 'release'])
    expect(releaseDay(at(120))).toBe(124)
  })
  it('is lost on the day that was told, day by day, whenever somebody begins to owe', () => {
    for (let begins = 60; begins <= 136; begins++) {
      const notices: number[] = []
      const told = releaseDay(at(begins))
      let lost: number | undefined
      for (let today = begins; today <= 145 && lost === undefined; today++) {
        expect(releaseDay(at(today, ...notices))).toBe(told)
        const step = unpaidStep(at(today, ...notices))
        if (step === 'notice') notices.push(today)
        if (step === 'release') lost = today
      }
      expect([begins, lost]).toEqual([begins, told])
      if (lost !== undefined) expect(notices).toHaveLength(2)
    }
  })
  it('is not given back once nothing can be added any more', () => {
    expect(unpaidStep(at(141, 86, 97))).toBe('none')
    expect(releaseDay(at(138))).toBeUndefined()
  })
})

describe('a ledger, over seats taken and given back at random', () => {
  const pool = ['STAT 110', 'HERI 110', 'SOIL 220', 'ENDA 310', 'MATH 231', 'WRIT 215', 'LANG 140']
  it.each([1, 2, 3, 4, 5, 6, 7, 8])('keeps its sums, seed %i', (seed) => {
    const roll = dice(seed)
    const below = (n: number) => Math.floor(roll() * n)
    const entries: Posting[] = []
    let seats: PricedSeat[] = []
    let paid = 0
    const steps = [100, 100, 100, 50, 50, 0]
    for (let i = 0; i < 120; i++) {
      const percent = steps[Math.floor((i / 120) * steps.length)]!
      const course = pool[below(pool.length)]!
      if (below(5) === 0) {
        const amount = 1 + below(50_000)
        entries.push(paymentOf(amount))
        paid += amount
      } else {
        const has = seats.some((one) => one.course === course)
        seats = has
          ? seats.filter((one) => one.course !== course)
          : [...seats, seat(course, 1 + below(8) / 2, below(3) * 4_500)]
        entries.push(...postings(assessedAfter(entries), assess(prices, resident, seats), percent))
      }
      const charged = assess(prices, resident, seats)
      // What is assessed is what is held, whatever happened before.
      expect(new Map(charged.map((one) => [one.item, one.amount]))).toEqual(assessedAfter(entries))
      for (const entry of entries) {
        expect(entry.amount).toBeGreaterThanOrEqual(0)
        expect(Number.isInteger(entry.amount)).toBe(true)
        expect(entry.debit).not.toBe(entry.credit)
      }
      const owed = owedAfter(entries)
      if (percent === 100) expect(owed).toBe(totalOf(charged) - paid)
      // Nobody is given back more than was charged.
      expect(owed).toBeGreaterThanOrEqual(totalOf(charged) - paid)
    }
  })
})
