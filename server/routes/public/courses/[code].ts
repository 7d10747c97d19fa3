import { coursePage } from '#server/features/publicPages/courses'
import { publicPage } from '#server/features/publicPages/endpoint'
import { codeParams } from '#server/features/publicPages/requests'

export default publicPage('GET /public/courses/:code', { params: codeParams }, (db, { params }) =>
  coursePage(db, params.code)
)
