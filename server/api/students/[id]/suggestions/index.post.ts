import { suggestionBody } from '#shared/advising/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { suggest } from '#server/features/advising/suggestions'

/** Suggests a change of a route. */
export default changeEndpoint(
  'POST /api/students/:id/suggestions',
  { params: studentParams, body: suggestionBody },
  (tx, at, { body, relation }) => suggest(tx, at, relation, body)
)
