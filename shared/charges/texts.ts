/** Money in words. */
import type { Cents, ChargeItem } from '#core/charges'
import type { LedgerEntry } from './responses'

/** `4,860.00`: no sign of a currency, an institution has one. */
export function moneyText(cents: Cents): string {
  const [whole, part] = (Math.abs(cents) / 100).toFixed(2).split('.')
  return `${cents < 0 ? '−' : ''}${whole!.replace(/\B(?=(\d{3})+$)/g, ',')}.${part}`
}

/** What is charged for: `Tuition`, `Library`, `Fee of SOIL 220`. */
export function itemText(item: ChargeItem | 'payment'): string {
  if (item === 'payment') return 'Payment'
  if (item === 'tuition') return 'Tuition'
  return item.startsWith('course ') ? `Fee of ${item.slice('course '.length)}` : item.slice('fee '.length)
}

/** An entry of a statement in a few words. */
export function entryText({ kind, item, amount }: Pick<LedgerEntry, 'kind' | 'item' | 'amount'>): string {
  const of = itemText(item)
  if (kind === 'payment') return 'Paid'
  if (kind === 'charge') return of
  const back = amount === 0 ? 'nothing given back' : 'given back'
  return kind === 'release' ? `${of}: ${back}, seats not paid for` : `${of}: ${back}`
}
