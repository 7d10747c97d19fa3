import { termParams } from '#shared/requests'
import { endpoint } from '#server/http/endpoint'
import { publicationEffect } from '#server/features/terms/publish'

/** Whom the publication of a term would concern. */
export default endpoint('GET /api/terms/:code/publication', { params: termParams }, ({ db, params }) =>
  publicationEffect(db, params.code)
)
