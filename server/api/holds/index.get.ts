import { endpoint } from '#server/http/endpoint'
import { readHolds } from '#server/features/offices/holds'

/** Holds that stand, and kinds of holds; of an office its own. */
export default endpoint('GET /api/holds', {}, ({ db, who }) => readHolds(db, who))
