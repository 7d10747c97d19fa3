/** What the server answers about money: what a student owes for a term, and what became of a payment. */
import type { Cents, ChargeItem, EntryKind } from '#core/charges'
import type { TermCode } from '#core/ids'
import type { Instant } from '#core/time'

export const PAYMENT_STATES = ['asked', 'taken', 'refused'] as const
export type PaymentState = (typeof PAYMENT_STATES)[number]

/** The ledger of a student's term, summed by item. */
export interface TermAccount {
  term: TermCode
  /** What stands charged, after refunds; items at nothing are left out. */
  charges: { item: ChargeItem; amount: Cents }[]
  paid: Cents
  /** Asked of the cashier, who has not answered yet. */
  asked: Cents
  /** When the student was told that it is unpaid, since it is. */
  notices: Instant[]
  /** When seats were last given back since they were not paid for. */
  releasedAt: Instant | null
}

export interface LedgerEntry {
  at: Instant
  kind: EntryKind
  item: ChargeItem | 'payment'
  /** What moved; of a refund that was not given, 0. */
  amount: Cents
  /** Who did it; null where a rule of the term did. */
  by: string | null
}

export interface PaymentResult {
  id: number
  state: PaymentState
  amount: Cents
}

/** What is owed for a term; below zero where too much was paid. */
export function owedOf({ charges, paid }: Pick<TermAccount, 'charges' | 'paid'>): Cents {
  return charges.reduce((sum, one) => sum + one.amount, 0) - paid
}
