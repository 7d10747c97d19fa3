import type { Instant } from '#core/time'
import { inTransaction, type Database } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import { readClock, setClock } from '#server/gateways/clock'
import type { Who } from '#shared/accounts/responses'
import type { CatalogContext } from '#shared/catalog/context'
import type { ClockView } from '#shared/responses'
import { doWhatIsDue } from './everyMinute'

/** Sets the campus clock, and does at once what is due by then; without an instant it goes on from where it is. */
export async function moveClock(
  db: Database,
  who: Who,
  catalogContext: CatalogContext,
  mode: ClockView['mode'],
  to?: Instant
): Promise<ClockView> {
  const clock = await inTransaction(db, async (tx) => {
    const before = await readClock(tx)
    const at = mode === 'real' ? Date.now() : (to ?? before.now)
    await setClock(tx, mode, at, catalogContext.terms)
    await logEvent(tx, {
      at,
      account: who.id,
      student: null,
      action: 'clock.set',
      before,
      after: { mode, now: at }
    })
    return readClock(tx)
  })
  await doWhatIsDue(db, catalogContext)
  return clock
}
