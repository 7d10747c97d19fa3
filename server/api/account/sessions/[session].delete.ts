import { sessionParams } from '#wire/bodies'
import { endpoint } from '../../../endpoint'
import { endSession } from '../../../services/accounts/sessions'
import { logEvent } from '../../../services/log'
import { Refused } from '../../../services/problem'
import { campusNow } from '../../../standins/clock'

/** Signs out in another place. */
export default endpoint(
  'DELETE /api/account/sessions/:session',
  { params: sessionParams },
  async ({ db, who, params }) => {
    if (!(await endSession(db, who.id, params.session)))
      throw new Refused(404, 'noSession', 'You are not signed in there any more.')
    await logEvent(db, { at: await campusNow(db), account: who.id, student: null, action: 'signIn.ended' })
  }
)
