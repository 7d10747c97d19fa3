import { keptAnswer } from '#server/http/kept'
import { endpoint } from '#server/http/endpoint'
import { readDescriptions } from '#server/features/catalog/catalog'

/** The descriptions of all courses, by course. */
export default endpoint('GET /api/catalog/descriptions', {}, ({ db }) =>
  keptAnswer(db, 'descriptions', () => readDescriptions(db))
)
