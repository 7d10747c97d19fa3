import { clockBody } from '#wire/bodies'
import { inTransaction } from '../db/connect'
import { endpoint } from '../endpoint'
import { logEvent } from '../services/log'
import { Refused } from '../services/problem'
import { readClock, setClock } from '../standins/clock'

/** Sets the campus clock: the registrar's, and everybody's in the demo. */
export default endpoint({ body: clockBody }, async ({ db, who, body }) => {
  if (who.role !== 'registrar' && process.env.RIDGEWAY_DEMO !== '1') {
    throw new Refused(403, 'notAllowed', "Only the registrar's office sets the campus clock.")
  }
  return inTransaction(db, async (tx) => {
    const before = await readClock(tx)
    const at = body.mode === 'real' ? Date.now() : body.at ? Date.parse(body.at) : before.now
    await setClock(tx, body.mode, at)
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
})
