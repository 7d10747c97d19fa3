/** What a term costs, set by the registrar. */
import { eq } from 'drizzle-orm'
import type { TermCode } from '#core/ids'
import type { Instant } from '#core/time'
import type { Transaction } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { termRow } from '#server/features/catalog/catalog'
import { Refused } from '#server/http/problem'
import type { Who } from '#shared/accounts/responses'
import type { PricesSaid } from '#shared/offices/prices'
import { lockTerm } from './plan'
import { saidPrices, seatsHeld } from './readTerms'

/**
 * Says what a term costs, as long as nobody holds a seat in it: what was charged stays as it was charged.
 *
 * @throws Refused
 */
export async function changePrices(
  tx: Transaction,
  who: Who,
  code: TermCode,
  { version, prices }: PricesSaid,
  { now }: { now: Instant }
): Promise<{ version: number }> {
  const { id } = await termRow(tx, code)
  const row = await lockTerm(tx, id, { version })
  const charged = await tx.$count(t.ledgerEntry, eq(t.ledgerEntry.termId, id))
  if (charged || (await seatsHeld(tx, id)))
    throw new Refused(
      409,
      'seatsHeld',
      `Seats are held in ${row.name}, or were charged for: what it costs stays as it is.`
    )
  const refunds = row.prices?.refunds ?? []
  await tx
    .update(t.term)
    .set({ prices: prices && { ...prices, refunds }, version: version + 1 })
    .where(eq(t.term.id, id))
  await logEvent(tx, {
    ...{ at: now, account: who.id, student: null, action: 'term.changed' },
    before: { term: code, prices: row.prices && saidPrices(row.prices) },
    after: { term: code, prices }
  })
  return { version: version + 1 }
}
