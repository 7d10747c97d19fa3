import { openEndpoint } from '#server/http/endpoint'
import { sessionOf } from '#server/features/accounts/sessions'
import { dropKey, keyOf, signedInAs } from '#server/http/session'

/** Who is signed in, and from where on they hear news; null when nobody is. */
export default openEndpoint('GET /api/session', {}, async ({ event, db }) => {
  const key = keyOf(event)
  if (!key) return null
  const session = await sessionOf(db, key)
  if (!session) dropKey(event)
  return session ? await signedInAs(db, session.who) : null
})
