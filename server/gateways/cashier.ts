/**
 * The cashier, who takes payments. The stand-in takes every one; a college puts the address of its own in
 * `RIDGEWAY_CASHIER`, which is asked by a POST of `{ reference, student, amount }`, the amount in cents, and answers
 * `{ "outcome": "taken" }` or `{ "outcome": "refused" }`. The same reference asked again is the same payment.
 */
import { z } from 'zod'
import type { Cents } from '#core/charges'
import { theSettings } from '#server/settings'

export interface PaymentAsked {
  reference: string
  /** The student's number. */
  student: string
  amount: Cents
}

export interface Cashier {
  /** @throws where no answer arrives; whether it was taken is not known then. */
  take(payment: PaymentAsked): Promise<'taken' | 'refused'>
}

const answer = z.object({ outcome: z.enum(['taken', 'refused']) })
const PATIENCE_MS = 10_000

/** A cashier that is asked over the network. */
export function cashierAt(address: URL): Cashier {
  return {
    async take(payment) {
      const response = await fetch(address, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(payment),
        signal: AbortSignal.timeout(PATIENCE_MS)
      })
      if (!response.ok) throw new Error(`the cashier answered ${response.status}`)
      return answer.parse(await response.json()).outcome
    }
  }
}

const standIn: Cashier = { take: () => Promise.resolve('taken') }

export function theCashier(): Cashier {
  const { cashier } = theSettings()
  return cashier ? cashierAt(cashier) : standIn
}
