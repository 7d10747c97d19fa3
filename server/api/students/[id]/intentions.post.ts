import { studentParams, termQuery } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { handIn } from '#server/features/route/intentions'

/** Hands in the planned courses of a term, before its sections are published. */
export default changeEndpoint(
  'POST /api/students/:id/intentions',
  { params: studentParams, body: termQuery },
  (tx, doing, { body }) => handIn(tx, doing, body.term)
)
