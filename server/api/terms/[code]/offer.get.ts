import { offerQuery, termParams } from '#wire/bodies'
import { endpoint } from '../../../endpoint'
import { offerOf } from '../../../services/week/sections'

/** Sections of some courses in a term, as the seats stand now. */
export default endpoint({ params: termParams, query: offerQuery }, ({ db, params, query }) =>
  offerOf(db, params.code, query.courses)
)
