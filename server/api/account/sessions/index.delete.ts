import { endpoint } from '../../../endpoint'
import { endOthers } from '../../../services/accounts/sessions'
import { logEvent } from '../../../services/log'
import { campusNow } from '../../../standins/clock'

/** Signs out everywhere but here. */
export default endpoint('DELETE /api/account/sessions', {}, async ({ db, who, session }) => {
  const ended = await endOthers(db, who.id, session.id)
  await logEvent(db, {
    at: await campusNow(db),
    account: who.id,
    student: null,
    action: 'signIn.ended',
    after: { ended }
  })
  return { ended }
})
