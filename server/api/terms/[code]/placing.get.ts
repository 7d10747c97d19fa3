import { termParams } from '#shared/requests'
import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { readGroups } from '#server/features/offices/placingGroups'
import { campusNow } from '#server/gateways/clock'

/** Whom the registrar can place in a term: who handed something in, the blocks, those of each opening. */
export default endpoint('GET /api/terms/:code/placing', { params: termParams }, async ({ db, params }) =>
  readGroups(db, params.code, { catalogContext: await currentCatalogContext(), now: await campusNow(db) })
)
