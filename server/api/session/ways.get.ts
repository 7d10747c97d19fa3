import { waysIn } from '#server/features/accounts/ways'
import { openEndpoint } from '#server/http/endpoint'

/** How one may sign in: by the sign-on of the institution, with a password, or both. */
export default openEndpoint('GET /api/session/ways', {}, () => Promise.resolve(waysIn()))
