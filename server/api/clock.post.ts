import { clockBody } from '#shared/requests'
import { inTransaction } from '#server/db/connect'
import { currentShelf, endpoint } from '#server/http/endpoint'
import { mustBeDemo } from '#server/features/accounts/demo'
import { logEvent } from '#server/db/log'
import { doWhatIsDue } from '#server/jobs/everyMinute'
import { readClock, setClock } from '#server/gateways/clock'

/** Sets the campus clock: everybody's in the demo, and nobody's anywhere else. */
export default endpoint('POST /api/clock', { body: clockBody }, async ({ db, who, body }) => {
  mustBeDemo()
  const shelf = await currentShelf()
  const clock = await inTransaction(db, async (tx) => {
    const before = await readClock(tx)
    const at = body.mode === 'real' ? Date.now() : body.at ? Date.parse(body.at) : before.now
    await setClock(tx, body.mode, at, shelf.terms)
    await logEvent(tx, {
      at,
      account: who.id,
      student: null,
      action: 'clock.set',
      before,
      after: { mode: body.mode, now: at }
    })
    return readClock(tx)
  })
  await doWhatIsDue(db, shelf)
  return clock
})
