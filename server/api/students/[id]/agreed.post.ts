import { agreedBody } from '#shared/advising/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { addAgreed } from '#server/features/advising/agreed'

export default changeEndpoint(
  'POST /api/students/:id/agreed',
  { params: studentParams, body: agreedBody },
  (tx, doing, { body }) => addAgreed(tx, doing, body)
)
