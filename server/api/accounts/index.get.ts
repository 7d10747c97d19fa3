import { endpoint } from '#server/http/endpoint'
import { readStaff } from '#server/features/accounts/staff'

export default endpoint('GET /api/accounts', {}, ({ db }) => readStaff(db))
