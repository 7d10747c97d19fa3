import { routeParams } from '#wire/bodies'
import { studentEndpoint } from '../../../../../endpoint'
import { readVersions } from '../../../../../services/route/route'

export default studentEndpoint(
  'GET /api/students/:id/routes/:route/versions',
  { params: routeParams },
  ({ db, student, params }) => readVersions(db, student, params.route)
)
