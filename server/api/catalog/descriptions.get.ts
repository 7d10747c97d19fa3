import { endpoint } from '../../endpoint'
import { readDescriptions } from '../../services/catalog/catalog'

export default endpoint('GET /api/catalog/descriptions', {}, ({ db }) => readDescriptions(db))
