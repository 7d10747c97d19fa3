import { returnBody, studentParams } from '#wire/bodies'
import { changeEndpoint } from '../../../../endpoint'
import { returnTo } from '../../../../services/route/route'

export default changeEndpoint(
  'POST /api/students/:id/route/return',
  { params: studentParams, body: returnBody },
  (tx, at, { body }) => returnTo(tx, at, body)
)
