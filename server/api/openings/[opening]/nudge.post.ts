import { openingParams } from '#shared/offices/requests'
import { officeEndpoint } from '#server/http/endpoint'
import { nudge } from '#server/features/offices/openingFigures'

/** Tells those of an opening who are not ready what they lack. */
export default officeEndpoint(
  'POST /api/openings/:opening/nudge',
  { params: openingParams },
  (tx, { who, ...at }, { params }) => nudge(tx, who, params.opening, at)
)
