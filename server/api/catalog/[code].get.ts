import { courseParams } from '#shared/catalog/requests'
import { endpoint } from '#server/http/endpoint'
import { readCoursePage } from '#server/features/catalog/catalog'

export default endpoint('GET /api/catalog/:code', { params: courseParams }, ({ db, params }) =>
  readCoursePage(db, params.code)
)
