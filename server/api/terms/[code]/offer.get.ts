import { setResponseHeader } from 'h3'
import { offerQuery } from '#shared/sections/requests'
import { termParams } from '#shared/requests'
import { endpoint } from '#server/http/endpoint'
import { offerOf } from '#server/features/sections/sections'
import { wholeOffer } from '#server/features/sections/wholeOffer'

/** Sections of some courses in a term, or of all, as the seats stand now. */
export default endpoint(
  'GET /api/terms/:code/offer',
  { params: termParams, query: offerQuery },
  async ({ event, db, params, query }) => {
    if (query.courses) return offerOf(db, params.code, query.courses)
    setResponseHeader(event, 'content-type', 'application/json')
    return wholeOffer(db, params.code, Date.now())
  }
)
