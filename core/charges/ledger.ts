/**
 * The ledger of a student's term. Each entry moves one amount from one account to another, so the accounts always balance;
 * entries are added and never changed. What is charged follows what is held: an entry says by how much the assessment of its
 * item changed, and the amount that moved for it, which is less where a refund is no longer whole.
 */
import type { Cents, Charge, ChargeItem } from './prices'

/** `student` is what the student owes; the others are the college's. */
export const LEDGER_ACCOUNTS = ['student', 'tuition', 'fees', 'cashier'] as const
export type LedgerAccount = (typeof LEDGER_ACCOUNTS)[number]

/** `release`: a refund of seats that were given back since they were not paid for. */
export const ENTRY_KINDS = ['charge', 'refund', 'release', 'payment'] as const
export type EntryKind = (typeof ENTRY_KINDS)[number]

export interface Posting {
  kind: EntryKind
  item: ChargeItem | 'payment'
  /** By how much the assessment of the item changed; 0 for a payment. */
  assessed: Cents
  /** What moved, 0 or more. */
  amount: Cents
  debit: LedgerAccount
  credit: LedgerAccount
}

const accountOf = (item: ChargeItem): LedgerAccount => (item === 'tuition' ? 'tuition' : 'fees')

/**
 * The entries that bring a ledger in line with what is held.
 *
 * @param before assessed so far, item by item
 * @param now what is to be assessed: see `assess`
 * @param percent what of a decrease is given back, 0 to 100; half cents are rounded in the student's favour
 */
export function postings(
  before: ReadonlyMap<ChargeItem, Cents>,
  now: readonly Charge[],
  percent: number,
  lowering: 'refund' | 'release' = 'refund'
): Posting[] {
  const wanted = new Map(now.map((charge) => [charge.item, charge.amount]))
  const items = new Set([...before.keys(), ...wanted.keys()])
  return [...items].flatMap((item): Posting[] => {
    const assessed = (wanted.get(item) ?? 0) - (before.get(item) ?? 0)
    if (assessed === 0) return []
    if (assessed > 0)
      return [{ kind: 'charge', item, assessed, amount: assessed, debit: 'student', credit: accountOf(item) }]
    const amount = Math.ceil((-assessed * percent) / 100)
    return [{ kind: lowering, item, assessed, amount, debit: accountOf(item), credit: 'student' }]
  })
}

/** A payment that the cashier took. */
export function paymentOf(amount: Cents): Posting {
  return { kind: 'payment', item: 'payment', assessed: 0, amount, debit: 'cashier', credit: 'student' }
}

/** What entries have assessed, item by item; items at nothing are left out. */
export function assessedAfter(
  entries: readonly Pick<Posting, 'item' | 'assessed'>[]
): Map<ChargeItem, Cents> {
  const found = new Map<ChargeItem, Cents>()
  for (const { item, assessed } of entries)
    if (item !== 'payment') found.set(item, (found.get(item) ?? 0) + assessed)
  for (const [item, amount] of found) if (amount === 0) found.delete(item)
  return found
}
