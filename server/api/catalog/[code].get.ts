import { courseParams } from '#wire/bodies'
import { endpoint } from '../../endpoint'
import { readCoursePage } from '../../services/catalog/catalog'

export default endpoint('GET /api/catalog/:code', { params: courseParams }, ({ db, params }) =>
  readCoursePage(db, params.code)
)
