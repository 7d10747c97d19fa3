import { routeStepBody } from '#shared/route/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { mayEdit, stepRoute } from '#server/features/route/route'

/** Undo and redo. */
export default changeEndpoint(
  'POST /api/students/:id/route/step',
  { params: studentParams, body: routeStepBody },
  async (tx, at, { body, relation }) => {
    if (relation !== 'self') await mayEdit(tx, at.student, body.route)
    return stepRoute(tx, at, body)
  }
)
