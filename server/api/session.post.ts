import { mustTakePasswords } from '#server/features/accounts/ways'
import { signInBody } from '#shared/accounts/requests'
import { openEndpoint } from '#server/http/endpoint'
import { theSignInAttempts } from '#server/http/thisServer'
import { signIn } from '#server/features/accounts/accounts'
import { addressOf, beginSession, signedInAs } from '#server/http/session'

/** Signs in with a password. */
export default openEndpoint('POST /api/session', { body: signInBody }, async ({ event, db, body }) => {
  mustTakePasswords()
  const who = await signIn(db, theSignInAttempts(), { ...body, address: addressOf(event) })
  await beginSession(event, db, who)
  return signedInAs(db, who)
})
