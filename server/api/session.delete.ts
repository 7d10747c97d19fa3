import { openEndpoint } from '../endpoint'
import { endSession, sessionOf } from '../services/accounts/sessions'
import { logEvent } from '../services/log'
import { dropKey, keyOf } from '../session'
import { campusNow } from '../standins/clock'

/** Signs out: the key that the browser held opens nothing from then on, wherever it was copied to. */
export default openEndpoint('DELETE /api/session', {}, async ({ event, db }) => {
  const key = keyOf(event)
  const session = key && (await sessionOf(db, key))
  dropKey(event)
  if (!session) return
  const { who, id } = session
  await endSession(db, who.id, id)
  await logEvent(db, { at: await campusNow(db), account: who.id, student: null, action: 'signIn.ended' })
})
