import { studentParams, termBody } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { handIn } from '#server/features/route/intentions'

export default changeEndpoint(
  'POST /api/students/:id/intentions',
  { params: studentParams, body: termBody },
  (tx, doing, { body }) => handIn(tx, doing, body.term)
)
