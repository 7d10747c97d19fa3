import { routeParams } from '#shared/route/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { dropRoute } from '#server/features/route/routes'

/** Takes a route away that is not the chosen one. */
export default changeEndpoint(
  'DELETE /api/students/:id/routes/:route',
  { params: routeParams },
  async (tx, at, { params }) => {
    await dropRoute(tx, at, params.route)
    return {}
  }
)
