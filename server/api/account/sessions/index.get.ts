import { sessionEndpoint } from '#server/http/endpoint'
import { listSessions } from '#server/features/accounts/sessions'

/** Where one is signed in. */
export default sessionEndpoint('GET /api/account/sessions', {}, ({ db, session }) =>
  listSessions(db, session)
)
