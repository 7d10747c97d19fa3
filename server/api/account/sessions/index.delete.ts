import { endpoint } from '../../../endpoint'
import { endOthers } from '../../../services/accounts/sessions'
import { note } from '../../../services/accounts/accounts'

/** Signs out everywhere but here. */
export default endpoint('DELETE /api/account/sessions', {}, async ({ db, who, session }) => {
  const ended = await endOthers(db, who.id, session.id)
  await note(db, 'signIn.ended', who.id, { ended })
  return { ended }
})
