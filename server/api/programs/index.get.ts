import { endpoint } from '../../endpoint'
import { readPrograms } from '../../services/catalog/catalog'

export default endpoint('GET /api/programs', {}, async ({ db }) => readPrograms(db))
