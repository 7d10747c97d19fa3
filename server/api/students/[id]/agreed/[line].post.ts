import { agreedDoneBody, agreedParams } from '#shared/advising/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { tickAgreed } from '#server/features/advising/agreed'

/** Ticks a line of what was agreed off, or opens it again. */
export default changeEndpoint(
  'POST /api/students/:id/agreed/:line',
  { params: agreedParams, body: agreedDoneBody },
  (tx, doing, { params, body }) => tickAgreed(tx, doing, params.line, body.done)
)
