import { termParams } from '#shared/requests'
import { endpoint } from '#server/http/endpoint'
import { termSeats } from '#server/features/sections/wholeOffer'

/** The seats of a term's sections as they stand now. */
export default endpoint('GET /api/terms/:code/seats', { params: termParams }, ({ db, params }) =>
  termSeats(db, params.code)
)
