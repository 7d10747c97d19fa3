import { agreedBody } from '#shared/advising/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { addAgreed } from '#server/features/advising/agreed'

/** Notes what was agreed: what, who, by when. */
export default changeEndpoint(
  'POST /api/students/:id/agreed',
  { params: studentParams, body: agreedBody },
  (tx, doing, { body }) => addAgreed(tx, doing, body)
)
