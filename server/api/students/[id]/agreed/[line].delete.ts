import { agreedParams } from '#shared/advising/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { dropAgreed } from '#server/features/advising/agreed'

export default changeEndpoint(
  'DELETE /api/students/:id/agreed/:line',
  { params: agreedParams },
  (tx, doing, { params }) => dropAgreed(tx, doing, params.line)
)
