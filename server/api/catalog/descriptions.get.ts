import { endpoint } from '#server/http/endpoint'
import { readDescriptions } from '#server/features/catalog/catalog'

export default endpoint('GET /api/catalog/descriptions', {}, ({ db }) => readDescriptions(db))
