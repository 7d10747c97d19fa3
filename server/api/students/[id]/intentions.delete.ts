import { studentParams, termQuery } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { takeBack } from '#server/features/route/intentions'

/** Takes back what was handed in for a term. */
export default changeEndpoint(
  'DELETE /api/students/:id/intentions',
  { params: studentParams, query: termQuery },
  (tx, doing, { query }) => takeBack(tx, doing, query.term)
)
