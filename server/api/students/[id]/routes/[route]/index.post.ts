import { describeRouteBody, routeParams } from '#shared/route/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { chooseRoute, describeRoute } from '#server/features/route/routes'

/** Names, notes and chooses a route. */
export default changeEndpoint(
  'POST /api/students/:id/routes/:route',
  { params: routeParams, body: describeRouteBody },
  async (tx, at, { params, body }) => {
    await describeRoute(tx, at, params.route, body)
    if (body.chosen) await chooseRoute(tx, at, params.route)
    return { route: params.route }
  }
)
