import { openEndpoint } from '#server/http/endpoint'
import { endSession, sessionOf } from '#server/features/accounts/sessions'
import { note } from '#server/features/accounts/accounts'
import { dropKey, keyOf } from '#server/http/session'

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
