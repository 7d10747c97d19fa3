import { coursesPage } from '#server/features/publicPages/courses'
import { publicPage } from '#server/features/publicPages/endpoint'
import { foundQuery } from '#server/features/publicPages/requests'

export default publicPage('GET /public/courses', { query: foundQuery }, (db, { query }) =>
  coursesPage(db, { q: query.q, subject: query.subject })
)
