import { routeStepBody, studentParams } from '#wire/bodies'
import { routeEndpoint } from '../../../../routeEndpoint'
import { stepRoute } from '../../../../services/route/route'

/** Undo and redo. */
export default routeEndpoint(
  { params: studentParams, body: routeStepBody },
  (tx, at, { body }) => stepRoute(tx, at, body),
  {
    advisors: true
  }
)
