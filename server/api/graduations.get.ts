import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { readApplications } from '#server/features/degree/graduation'
import { campusNow } from '#server/gateways/clock'

/** Applications to graduate, with how far each has come. */
export default endpoint('GET /api/graduations', {}, async ({ db }) =>
  readApplications(db, { catalogContext: await currentCatalogContext(), now: await campusNow(db) })
)
