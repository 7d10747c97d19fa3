import { returnBody, studentParams } from '#wire/bodies'
import { routeEndpoint } from '../../../../routeEndpoint'
import { returnTo } from '../../../../services/route/route'

export default routeEndpoint({ params: studentParams, body: returnBody }, (tx, at, { body }) =>
  returnTo(tx, at, body)
)
