import { courseParams } from '#shared/catalog/requests'
import { endpoint } from '#server/http/endpoint'
import { readCoursePage } from '#server/features/catalog/catalog'

/** A course with what somebody who is about to plan it wants to read. */
export default endpoint('GET /api/catalog/:code', { params: courseParams }, ({ db, params }) =>
  readCoursePage(db, params.code)
)
