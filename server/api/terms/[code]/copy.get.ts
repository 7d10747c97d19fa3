import { fromTermBody } from '#shared/offices/terms'
import { termParams } from '#shared/requests'
import { endpoint } from '#server/http/endpoint'
import { lookAtCopy } from '#server/features/terms/copyOffer'

/** What copying the offer of an earlier term would come to. */
export default endpoint(
  'GET /api/terms/:code/copy',
  { params: termParams, query: fromTermBody },
  ({ db, params, query }) => lookAtCopy(db, params.code, query.from)
)
