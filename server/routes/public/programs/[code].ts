import { publicPage } from '#server/features/publicPages/endpoint'
import { programPage } from '#server/features/publicPages/programs'
import { codeParams } from '#server/features/publicPages/requests'

export default publicPage('GET /public/programs/:code', { params: codeParams }, (db, { params }) =>
  programPage(db, params.code)
)
