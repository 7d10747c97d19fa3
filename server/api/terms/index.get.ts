import { endpoint } from '#server/http/endpoint'
import { readTerms } from '#server/features/terms/readTerms'

/** All terms, with what is in them. */
export default endpoint('GET /api/terms', {}, ({ db }) => readTerms(db))
