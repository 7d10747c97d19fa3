import { sessionEndpoint } from '#server/http/endpoint'
import { endOthers } from '#server/features/accounts/sessions'
import { note } from '#server/features/accounts/accounts'

/** Signs out everywhere but here. */
export default sessionEndpoint('DELETE /api/account/sessions', {}, async ({ db, who, session }) => {
  const ended = await endOthers(db, who.id, session.id)
  await note(db, 'signIn.ended', who.id, { ended })
  return { ended }
})
