import { fromTermBody } from '#shared/offices/terms'
import { termParams } from '#shared/requests'
import { termEndpoint } from '#server/http/endpoint'
import { copyOpenings } from '#server/features/offices/openings'

/** Opens a term for the groups for which an earlier one opened. */
export default termEndpoint(
  'POST /api/terms/:code/openings',
  { params: termParams, body: fromTermBody },
  (tx, at, { params, body }) => copyOpenings(tx, at.who, { term: params.code, from: body.from }, at)
)
