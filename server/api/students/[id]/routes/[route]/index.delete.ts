import { routeParams } from '#wire/bodies'
import { routeEndpoint } from '../../../../../routeEndpoint'
import { dropRoute } from '../../../../../services/route/route'

export default routeEndpoint({ params: routeParams }, async (tx, at, { params }) => {
  await dropRoute(tx, at, params.route)
  return {}
})
