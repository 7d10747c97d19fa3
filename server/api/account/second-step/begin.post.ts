import { mustTakePasswords } from '#server/features/accounts/ways'
import { presentBody } from '#shared/accounts/requests'
import { inTransaction } from '#server/db/connect'
import { mustBePassword } from '#server/features/accounts/accounts'
import { beginSecondStep } from '#server/features/accounts/secondStep'
import { sessionEndpoint } from '#server/http/endpoint'
import { theSignInAttempts } from '#server/http/thisServer'
import { addressOf } from '#server/http/session'

/** Gives a secret for an app of codes, which asks for nothing until a code of it was given. */
export default sessionEndpoint(
  'POST /api/account/second-step/begin',
  { body: presentBody },
  async ({ event, db, who, body }) => {
    mustTakePasswords()
    await mustBePassword(db, theSignInAttempts(), who, { ...body, address: addressOf(event) })
    return inTransaction(db, (tx) => beginSecondStep(tx, who.id))
  }
)
