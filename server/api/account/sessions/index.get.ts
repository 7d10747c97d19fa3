import { endpoint } from '../../../endpoint'
import { listSessions } from '../../../services/accounts/sessions'

/** Where one is signed in. */
export default endpoint('GET /api/account/sessions', {}, ({ db, session }) => listSessions(db, session))
