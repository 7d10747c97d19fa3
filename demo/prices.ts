/** What the terms of Harrowmere College cost. Amounts in cents. */
import { assess, centsOf, type Payer, type PricedSeat, type TermPrices } from '#core/charges'
import { courseCode } from '#core/ids'
import { campusTime } from './college'
import type { DemoSeat } from './enrolment'

const flat = (payer: Payer, whole: number, perCredit: number): TermPrices['tuition'][number] => ({
  ...payer,
  bands: [
    { from: 0, flat: 0, perCredit },
    { from: 12, flat: whole, perCredit: 0 },
    { from: 18, flat: whole, perCredit }
  ]
})
const byCredit = (payer: Payer, perCredit: number): TermPrices['tuition'][number] => ({
  ...payer,
  bands: [{ from: 0, flat: 0, perCredit }]
})

/** Of a lab, in dollars. */
export const feeOfCourse = ({ categories }: { categories: readonly string[] }) =>
  categories.includes('lab') ? 60 : 0

/** Prices are set for a year at a time: those from Autumn 2027 on are known. */
const FIRST_DAY = '2027-08-01'

/** @param startsOn the first day of the term */
export function pricesOf(startsOn: string): TermPrices | null {
  if (startsOn < FIRST_DAY) return null
  const until = (days: number) => {
    const day = new Date(Date.parse(startsOn) + days * 86_400_000).toISOString().slice(0, 10)
    return campusTime(`${day}T00:00`).getTime()
  }
  return {
    tuition: [
      flat({ level: 'undergraduate', residency: 'resident' }, 442_000, 36_500),
      flat({ level: 'undergraduate', residency: 'nonResident' }, 918_000, 76_000),
      byCredit({ level: 'graduate', residency: 'resident' }, 46_000),
      byCredit({ level: 'graduate', residency: 'nonResident' }, 81_500)
    ],
    fees: [
      { title: 'Student services', amount: 26_500 },
      { title: 'Library', amount: 3_000 }
    ],
    refunds: [
      { until: until(5), percent: 100 },
      { until: until(19), percent: 50 }
    ],
    releasesUnpaid: true
  }
}

/** What is charged for seats that are held. */
export function chargesOf(
  prices: TermPrices,
  payer: Payer,
  seats: readonly DemoSeat[],
  feeOf: (course: string) => number
) {
  const priced = new Map<string, PricedSeat>()
  for (const { section } of seats) {
    const before = priced.get(section.course)
    const own = section.parent === null ? section.credits : 0
    priced.set(section.course, {
      course: courseCode(section.course),
      credits: (before?.credits ?? 0) + own,
      fee: centsOf(feeOf(section.course))
    })
  }
  return assess(prices, payer, [...priced.values()])
}
