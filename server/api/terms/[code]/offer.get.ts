import { offerQuery, termParams } from '#wire/bodies'
import { endpoint } from '../../../endpoint'
import { offerOf } from '../../../services/week/sections'
import { wholeOffer } from '../../../services/week/wholeOffer'

/** Sections of some courses in a term, or of all, as the seats stand now. */
export default endpoint({ params: termParams, query: offerQuery }, ({ db, params, query }) =>
  query.courses ? offerOf(db, params.code, query.courses) : wholeOffer(db, params.code, Date.now())
)
