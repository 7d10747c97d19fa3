import { readCollege } from '#server/features/offices/college'
import { endpoint } from '#server/http/endpoint'

/** What the college itself is: its places, departments, categories and grades. */
export default endpoint('GET /api/college', {}, ({ db }) => readCollege(db))
