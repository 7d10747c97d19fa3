import { endpoint } from '#server/http/endpoint'
import { readPrograms } from '#server/features/catalog/catalog'

export default endpoint('GET /api/programs', {}, async ({ db }) => readPrograms(db))
