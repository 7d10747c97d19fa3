import { effectParams, effectQuery } from '#shared/advising/requests'
import { effectOfProgram } from '#server/features/degree/programChange'
import { campusNow } from '#server/gateways/clock'
import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'

/** What another program would make of the degree of a student who reported theirs as wrong. */
export default endpoint(
  'GET /api/requests/:request/effect',
  { params: effectParams, query: effectQuery },
  async ({ db, params, query }) =>
    effectOfProgram(db, params.request, query.version, {
      catalogContext: await currentCatalogContext(),
      now: await campusNow(db)
    })
)
