import { sessionParams } from '#shared/accounts/requests'
import { endpoint } from '#server/http/endpoint'
import { endSession } from '#server/features/accounts/sessions'
import { note } from '#server/features/accounts/accounts'
import { Refused } from '#server/http/problem'

/** Signs out in another place. */
export default endpoint(
  'DELETE /api/account/sessions/:session',
  { params: sessionParams },
  async ({ db, who, params }) => {
    if (!(await endSession(db, who.id, params.session)))
      throw new Refused(404, 'noSession', 'You are not signed in there any more.')
    await note(db, 'signIn.ended', who.id)
  }
)
