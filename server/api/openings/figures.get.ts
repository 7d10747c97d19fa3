import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { readOpeningFigures } from '#server/features/offices/openingFigures'
import { campusNow } from '#server/gateways/clock'

/** For how many each opening is, and who of them is not ready. */
export default endpoint('GET /api/openings/figures', {}, async ({ db }) =>
  readOpeningFigures(db, await currentCatalogContext(), await campusNow(db))
)
