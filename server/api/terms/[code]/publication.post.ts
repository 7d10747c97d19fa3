import { termParams } from '#shared/requests'
import { termEndpoint } from '#server/http/endpoint'
import { publishTerm } from '#server/features/terms/publish'

/** Publishes a term. */
export default termEndpoint(
  'POST /api/terms/:code/publication',
  { params: termParams },
  (tx, at, { params }) => publishTerm(tx, at.who, params.code, at)
)
