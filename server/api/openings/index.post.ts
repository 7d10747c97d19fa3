import { newOpeningBody } from '#shared/offices/requests'
import { termEndpoint } from '#server/http/endpoint'
import { makeOpening } from '#server/features/offices/openings'

/** Opens a term for a group. */
export default termEndpoint('POST /api/openings', { body: newOpeningBody }, (tx, at, { body }) =>
  makeOpening(tx, at.who, body, at)
)
