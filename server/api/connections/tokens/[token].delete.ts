import { tokenParams } from '#shared/connections/requests'
import { transactionEndpoint } from '#server/http/endpoint'
import { endToken } from '#server/features/connections/tokens'

/** Ends a token: it holds no more, from the next request on. */
export default transactionEndpoint(
  'DELETE /api/connections/tokens/:token',
  { params: tokenParams },
  (tx, { who, now }, { params }) => endToken(tx, who, params.token, now)
)
