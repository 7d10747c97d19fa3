import { newRouteBody } from '#shared/route/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { makeRoute } from '#server/features/route/routes'

/** Begins another route, empty or as a copy. */
export default changeEndpoint(
  'POST /api/students/:id/routes',
  { params: studentParams, body: newRouteBody },
  (tx, at, { body }) => makeRoute(tx, at, body)
)
