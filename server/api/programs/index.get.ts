import { endpoint } from '../../endpoint'
import { readPrograms } from '../../services/catalog/catalog'

export default endpoint({}, async ({ db }) => readPrograms(db))
