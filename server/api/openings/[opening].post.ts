import { openingBody, openingParams } from '#shared/offices/requests'
import { termEndpoint } from '#server/http/endpoint'
import { moveOpening } from '#server/features/offices/openings'

/** Moves an opening that is to come. */
export default termEndpoint(
  'POST /api/openings/:opening',
  { params: openingParams, body: openingBody },
  (tx, at, { params, body }) => moveOpening(tx, at.who, params.opening, body.opens, at)
)
