import { passwordBody } from '#wire/bodies'
import { endpoint, theAttempts } from '../../endpoint'
import { changePassword } from '../../services/accounts/accounts'
import { endAll, keptFor, openSession } from '../../services/accounts/sessions'
import { addressOf, browserOf, keepKey } from '../../session'

/** Changes the password. Whoever was signed in by the one before is signed out; here one stays, by a new key. */
export default endpoint(
  'POST /api/account/password',
  { body: passwordBody },
  async ({ event, db, who, body }) => {
    await changePassword(db, theAttempts(), who, { ...body, address: addressOf(event) })
    await endAll(db, who.id)
    keepKey(event, await openSession(db, who.id, browserOf(event)), keptFor(who.role))
  }
)
