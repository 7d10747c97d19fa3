import { endpoint } from '#server/http/endpoint'
import { readHolds } from '#server/features/offices/holds'

/** Holds that stand, and kinds of holds. */
export default endpoint('GET /api/holds', {}, ({ db }) => readHolds(db))
