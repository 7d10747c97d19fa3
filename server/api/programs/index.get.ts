import { keptAnswer } from '#server/http/kept'
import { endpoint } from '#server/http/endpoint'
import { readPrograms } from '#server/features/catalog/programs'

/** The programs that are published, with their rules. */
export default endpoint('GET /api/programs', {}, ({ db }) =>
  keptAnswer(db, 'programs', () => readPrograms(db))
)
