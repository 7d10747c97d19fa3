import { keyParams } from '#shared/requests'
import { openEndpoint } from '#server/http/endpoint'
import { readShared } from '#server/features/week/drafts'

/** A shared draft week, for whoever has its link. */
export default openEndpoint('GET /api/shared/:key', { params: keyParams }, ({ db, params }) =>
  readShared(db, params.key)
)
