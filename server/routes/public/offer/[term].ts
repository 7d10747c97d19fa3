import { publicPage } from '#server/features/publicPages/endpoint'
import { offerPage } from '#server/features/publicPages/offer'
import { foundQuery, termParams } from '#server/features/publicPages/requests'

export default publicPage(
  'GET /public/offer/:term',
  { params: termParams, query: foundQuery },
  (db, { params, query }) => offerPage(db, { term: params.term, q: query.q, subject: query.subject })
)
