import { keptAnswer } from '#server/http/kept'
import { endpoint } from '#server/http/endpoint'
import { readDescriptions } from '#server/features/catalog/catalog'

export default endpoint('GET /api/catalog/descriptions', {}, ({ db }) =>
  keptAnswer(db, 'descriptions', () => readDescriptions(db))
)
