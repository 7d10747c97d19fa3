/**
 * What a term costs: tuition by credits, fees of the term and of courses, and what of it is given back until when. Amounts
 * are whole cents.
 */
import type { CourseCode } from '../ids'
import type { Instant } from '../time'

/** An amount of money in cents, a whole number. */
export type Cents = number

/** From so many credits on: a flat amount, and so much for each credit beyond `from`. */
export interface TuitionBand {
  from: number
  flat: Cents
  perCredit: Cents
}

/** Whom a price is for. */
export interface Payer {
  level: 'undergraduate' | 'graduate'
  residency: 'resident' | 'nonResident'
}

export interface TuitionRate extends Payer {
  /** By rising `from`, the first from 0. */
  bands: readonly TuitionBand[]
}

/** A fee of everybody who holds a seat in the term. */
export interface TermFee {
  title: string
  amount: Cents
}

/** Until an instant, half-open, so much of what a change makes cheaper is given back. */
export interface RefundStep {
  until: Instant
  percent: number
}

export interface TermPrices {
  tuition: readonly TuitionRate[]
  fees: readonly TermFee[]
  /** By rising `until`; after the last nothing is given back. */
  refunds: readonly RefundStep[]
  /** Whether seats are given back that are not paid for by the due date. */
  releasesUnpaid: boolean
}

/** A seat as far as it costs something: its course with all its components. */
export interface PricedSeat {
  course: CourseCode
  credits: number
  fee: Cents
}

/** What is charged for: the tuition, a fee of the term by its title, or the fee of a course. */
export type ChargeItem = 'tuition' | `fee ${string}` | `course ${string}`

export interface Charge {
  item: ChargeItem
  amount: Cents
}

/** Cents of an amount in whole units with two decimals, as tables and files write it. */
export function centsOf(amount: number): Cents {
  return Math.round(amount * 100)
}

/**
 * Tuition for credits: that of the last band they reach. Flat and per-credit bands are common practice; a college says
 * its own.
 *
 * @param credits of the term, in halves at the finest
 */
export function tuitionFor(rate: Pick<TuitionRate, 'bands'> | undefined, credits: number): Cents {
  const band = rate?.bands.filter((one) => one.from <= credits).at(-1)
  return band ? Math.round(band.flat + band.perCredit * (credits - band.from)) : 0
}

/** The rate of a payer; undefined where the term has none for them. */
function rateFor({ tuition }: TermPrices, { level, residency }: Payer): TuitionRate | undefined {
  return tuition.find((one) => one.level === level && one.residency === residency)
}

/** What somebody who holds these seats is charged in all; nothing for no seat. Items of no amount are left out. */
export function assess(prices: TermPrices, payer: Payer, seats: readonly PricedSeat[]): Charge[] {
  if (!seats.length) return []
  const credits = seats.reduce((sum, seat) => sum + seat.credits, 0)
  const charges: Charge[] = [
    { item: 'tuition', amount: tuitionFor(rateFor(prices, payer), credits) },
    ...prices.fees.map(({ title, amount }): Charge => ({ item: `fee ${title}`, amount })),
    ...seats.map(({ course, fee }): Charge => ({ item: `course ${course}`, amount: fee }))
  ]
  return charges.filter((charge) => charge.amount !== 0)
}

export const totalOf = (charges: readonly Charge[]): Cents =>
  charges.reduce((sum, charge) => sum + charge.amount, 0)

/** What percentage is given back of what becomes cheaper at an instant: that of the first step it is before. */
export function refundPercent({ refunds }: Pick<TermPrices, 'refunds'>, now: Instant): number {
  return refunds.find((step) => now < step.until)?.percent ?? 0
}
