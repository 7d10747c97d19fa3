import { presentBody } from '#shared/accounts/requests'
import { inTransaction } from '#server/db/connect'
import { mustBePassword } from '#server/features/accounts/accounts'
import { forgetSessions } from '#server/features/accounts/sessions'
import { dropSecondStep, needsSecondStep } from '#server/features/accounts/secondStep'
import { sessionEndpoint } from '#server/http/endpoint'
import { theSignInAttempts } from '#server/http/thisServer'
import { addressOf } from '#server/http/session'

/** Takes the second step off; the present password has to be given. Says whether it is asked for all the same. */
export default sessionEndpoint(
  'POST /api/account/second-step/off',
  { body: presentBody },
  async ({ event, db, who, body }) => {
    await mustBePassword(db, theSignInAttempts(), who, { ...body, address: addressOf(event) })
    await inTransaction(db, (tx) => dropSecondStep(tx, who.id, who.id))
    forgetSessions(who.id)
    return { needsSecondStep: await needsSecondStep(db, who) }
  }
)
