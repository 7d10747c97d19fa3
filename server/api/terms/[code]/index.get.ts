import { termParams } from '#shared/requests'
import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { readTermPlan } from '#server/features/terms/readTerms'

/** A term as it is written, to be changed. */
export default endpoint('GET /api/terms/:code', { params: termParams }, async ({ db, params }) =>
  readTermPlan(db, params.code, (await currentCatalogContext()).zone)
)
