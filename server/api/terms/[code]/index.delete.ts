import { termParams } from '#shared/requests'
import { termEndpoint } from '#server/http/endpoint'
import { dropTerm } from '#server/features/terms/plan'

/** Takes a term away that nothing rests on. */
export default termEndpoint('DELETE /api/terms/:code', { params: termParams }, (tx, at, { params }) =>
  dropTerm(tx, at.who, params.code, at.now)
)
