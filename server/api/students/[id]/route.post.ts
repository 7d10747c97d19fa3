import { routeChangeBody, studentParams } from '#wire/bodies'
import { routeEndpoint } from '../../../routeEndpoint'
import { changeRoute } from '../../../services/route/route'

export default routeEndpoint(
  { params: studentParams, body: routeChangeBody },
  (tx, at, { body }) => changeRoute(tx, at, body),
  {
    advisors: true
  }
)
