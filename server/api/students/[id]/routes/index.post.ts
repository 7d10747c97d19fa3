import { newRouteBody, studentParams } from '#wire/bodies'
import { routeEndpoint } from '../../../../routeEndpoint'
import { makeRoute } from '../../../../services/route/route'

export default routeEndpoint({ params: studentParams, body: newRouteBody }, (tx, at, { body }) =>
  makeRoute(tx, at, body)
)
