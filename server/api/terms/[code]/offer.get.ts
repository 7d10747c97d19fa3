import { termParams } from '#shared/requests'
import { endpoint } from '#server/http/endpoint'
import { wholeOffer } from '#server/features/sections/wholeOffer'

/** The sections of a term, without their seats. */
export default endpoint('GET /api/terms/:code/offer', { params: termParams }, ({ db, params }) =>
  wholeOffer(db, params.code)
)
