import { routeParams } from '#shared/route/requests'
import { studentEndpoint } from '#server/http/endpoint'
import { readVersions } from '#server/features/route/routes'

/** What a route was after each change, the last first. */
export default studentEndpoint(
  'GET /api/students/:id/routes/:route/versions',
  { params: routeParams },
  ({ db, student, params }) => readVersions(db, student, params.route)
)
