import { requestParams } from '#shared/advising/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { withdrawRequest } from '#server/features/advising/requests'

/** Withdraws a request. */
export default changeEndpoint(
  'DELETE /api/students/:id/requests/:request',
  { params: requestParams },
  (tx, doing, { params }) => withdrawRequest(tx, doing, params.request)
)
