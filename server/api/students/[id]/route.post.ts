import { routeChangeBody } from '#shared/route/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { changeRoute, mayEdit } from '#server/features/route/route'

/** Changes a route: the student, or the advisor where the student allows it. */
export default changeEndpoint(
  'POST /api/students/:id/route',
  { params: studentParams, body: routeChangeBody },
  async (tx, at, { body, relation }) => {
    if (relation !== 'self') await mayEdit(tx, at.student, body.route)
    return changeRoute(tx, at, body)
  }
)
