import { mustTakePasswords } from '#server/features/accounts/ways'
import { welcomeBody } from '#shared/accounts/requests'
import { keyParams } from '#shared/requests'
import { openEndpoint } from '#server/http/endpoint'
import { endAll } from '#server/features/accounts/sessions'
import { hasSecondStep } from '#server/features/accounts/secondStep'
import { join } from '#server/features/accounts/staff'
import { beginSession, signedInAs } from '#server/http/session'

/** Sets the password, and signs in, but where a second step is asked for. Whoever was signed in by the one before is signed out. */
export default openEndpoint(
  'POST /api/welcome/:key',
  { params: keyParams, body: welcomeBody },
  async ({ event, db, params, body }) => {
    mustTakePasswords()
    const who = await join(db, params.key, body.next)
    await endAll(db, who.id)
    // A link that was mailed is no second step.
    if (await hasSecondStep(db, who.id)) return null
    await beginSession(event, db, who)
    return signedInAs(db, who)
  }
)
