import { returnBody } from '#shared/route/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { returnTo } from '#server/features/route/route'

/** Makes a route what it was at an earlier version. */
export default changeEndpoint(
  'POST /api/students/:id/route/return',
  { params: studentParams, body: returnBody },
  (tx, at, { body }) => returnTo(tx, at, body)
)
