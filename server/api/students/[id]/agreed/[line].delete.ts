import { agreedParams } from '#shared/advising/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { dropAgreed } from '#server/features/advising/agreed'

/** Takes a line of what was agreed away. */
export default changeEndpoint(
  'DELETE /api/students/:id/agreed/:line',
  { params: agreedParams },
  (tx, doing, { params }) => dropAgreed(tx, doing, params.line)
)
