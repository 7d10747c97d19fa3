import { openEndpoint } from '../endpoint'
import { endSession, sessionOf } from '../services/accounts/sessions'
import { note } from '../services/accounts/accounts'
import { dropKey, keyOf } from '../session'

/** Signs out: the key that the browser held opens nothing from then on, wherever it was copied to. */
export default openEndpoint('DELETE /api/session', {}, async ({ event, db }) => {
  const key = keyOf(event)
  const session = key && (await sessionOf(db, key))
  dropKey(event)
  if (!session) return
  const { who, id } = session
  await endSession(db, who.id, id)
  await note(db, 'signIn.ended', who.id)
})
