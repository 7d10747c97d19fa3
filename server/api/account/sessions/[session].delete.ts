import { sessionParams } from '#wire/bodies'
import { endpoint } from '../../../endpoint'
import { endSession } from '../../../services/accounts/sessions'
import { note } from '../../../services/accounts/accounts'
import { Refused } from '../../../services/problem'

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
