import { signInBody } from '#shared/accounts/requests'
import { openEndpoint } from '#server/http/endpoint'
import { theNews, theSignInAttempts } from '#server/http/thisServer'
import { signIn } from '#server/features/accounts/accounts'
import { endSession, sessionOf } from '#server/features/accounts/sessions'
import { addressOf, beginSession, keyOf } from '#server/http/session'

/** Signs in: a session of its own, whatever the browser held before. */
export default openEndpoint('POST /api/session', { body: signInBody }, async ({ event, db, body }) => {
  const who = await signIn(db, theSignInAttempts(), { ...body, address: addressOf(event) })
  const before = keyOf(event)
  const session = before && (await sessionOf(db, before))
  if (session) await endSession(db, session.who.id, session.id)
  await beginSession(event, db, who)
  return { ...who, news: await theNews().head() }
})
