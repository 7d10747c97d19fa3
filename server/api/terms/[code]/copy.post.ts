import { fromTermBody } from '#shared/offices/terms'
import { termParams } from '#shared/requests'
import { termEndpoint } from '#server/http/endpoint'
import { copyOffer } from '#server/features/terms/copyOffer'

/** Copies the offer of an earlier term. */
export default termEndpoint(
  'POST /api/terms/:code/copy',
  { params: termParams, body: fromTermBody },
  (tx, at, { params, body }) => copyOffer(tx, at.who, { term: params.code, from: body.from }, at)
)
