import { courseParams } from '#shared/catalog/requests'
import { readWrittenCourse } from '#server/features/catalog/writing'
import { endpoint } from '#server/http/endpoint'

/** A course as it stands, to be written anew. */
export default endpoint('GET /api/catalog/:code/written', { params: courseParams }, ({ db, params }) =>
  readWrittenCourse(db, params.code)
)
