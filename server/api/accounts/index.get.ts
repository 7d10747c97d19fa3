import { endpoint } from '#server/http/endpoint'
import { readStaff } from '#server/features/accounts/staff'

/** Accounts of the staff, and the instructors and departments that one may be for. */
export default endpoint('GET /api/accounts', {}, ({ db }) => readStaff(db))
