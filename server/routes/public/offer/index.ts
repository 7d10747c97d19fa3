import { publicPage } from '#server/features/publicPages/endpoint'
import { offerPage } from '#server/features/publicPages/offer'
import { foundQuery } from '#server/features/publicPages/requests'

export default publicPage('GET /public/offer', { query: foundQuery }, (db, { query }) =>
  offerPage(db, { term: undefined, q: query.q, subject: query.subject })
)
