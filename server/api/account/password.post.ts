import { mustTakePasswords } from '#server/features/accounts/ways'
import { passwordBody } from '#shared/accounts/requests'
import { endpoint } from '#server/http/endpoint'
import { theSignInAttempts } from '#server/http/thisServer'
import { changePassword } from '#server/features/accounts/accounts'
import { endAll } from '#server/features/accounts/sessions'
import { addressOf, beginSession } from '#server/http/session'

/** Changes the password. Whoever was signed in by the one before is signed out; here one stays, by a new key. */
export default endpoint(
  'POST /api/account/password',
  { body: passwordBody },
  async ({ event, db, who, body }) => {
    mustTakePasswords()
    await changePassword(db, theSignInAttempts(), who, { ...body, address: addressOf(event) })
    await endAll(db, who.id)
    await beginSession(event, db, who)
  }
)
