import { endpoint } from '../../endpoint'
import { readCatalog } from '../../services/catalog/catalog'

export default endpoint('GET /api/catalog', {}, ({ db }) => readCatalog(db))
