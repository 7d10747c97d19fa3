import { codeBody } from '#shared/accounts/requests'
import { inTransaction } from '#server/db/connect'
import { confirmSecondStep } from '#server/features/accounts/secondStep'
import { forgetSessions } from '#server/features/accounts/sessions'
import { sessionEndpoint } from '#server/http/endpoint'

/** Turns the second step on by a code of the app, and gives the codes that are to be written down. */
export default sessionEndpoint(
  'POST /api/account/second-step',
  { body: codeBody },
  async ({ db, who, body }) => {
    const spare = await inTransaction(db, (tx) => confirmSecondStep(tx, who.id, body.code))
    forgetSessions(who.id)
    return { spare }
  }
)
