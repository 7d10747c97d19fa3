import { endpoint } from '#server/http/endpoint'
import { listSessions } from '#server/features/accounts/sessions'

/** Where one is signed in. */
export default endpoint('GET /api/account/sessions', {}, ({ db, session }) => listSessions(db, session))
