import { keptAnswer } from '#server/http/kept'
import { endpoint } from '#server/http/endpoint'
import { readPrograms } from '#server/features/catalog/catalog'

export default endpoint('GET /api/programs', {}, ({ db }) =>
  keptAnswer(db, 'programs', () => readPrograms(db))
)
