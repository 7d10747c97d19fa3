import { openingParams } from '#shared/offices/requests'
import { termEndpoint } from '#server/http/endpoint'
import { dropOpening } from '#server/features/offices/openings'

/** Takes an opening away that is to come. */
export default termEndpoint(
  'DELETE /api/openings/:opening',
  { params: openingParams },
  (tx, at, { params }) => dropOpening(tx, at.who, params.opening, at)
)
