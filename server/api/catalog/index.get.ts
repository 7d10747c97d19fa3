import { endpoint } from '#server/http/endpoint'
import { readCatalog } from '#server/features/catalog/catalog'

export default endpoint('GET /api/catalog', {}, ({ db }) => readCatalog(db))
