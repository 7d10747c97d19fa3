import { endpoint } from '#server/http/endpoint'
import { readHolds } from '#server/features/offices/holds'

export default endpoint('GET /api/holds', {}, ({ db }) => readHolds(db))
