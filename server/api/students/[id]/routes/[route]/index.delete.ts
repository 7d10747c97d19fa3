import { routeParams } from '#wire/bodies'
import { changeEndpoint } from '../../../../../endpoint'
import { dropRoute } from '../../../../../services/route/route'

export default changeEndpoint(
  'DELETE /api/students/:id/routes/:route',
  { params: routeParams },
  async (tx, at, { params }) => {
    await dropRoute(tx, at, params.route)
    return {}
  }
)
