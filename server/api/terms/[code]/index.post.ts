import { termBody } from '#shared/offices/terms'
import { termParams } from '#shared/requests'
import { termEndpoint } from '#server/http/endpoint'
import { changeTerm } from '#server/features/terms/plan'

/** Changes dates and rules of a term. */
export default termEndpoint(
  'POST /api/terms/:code',
  { params: termParams, body: termBody },
  (tx, at, { params, body }) => changeTerm(tx, at.who, params.code, body, at)
)
