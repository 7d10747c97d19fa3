import { openingParams } from '#shared/offices/requests'
import { logAlone } from '#server/db/log'
import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { readUnready } from '#server/features/offices/openingFigures'
import { campusNow } from '#server/gateways/clock'

/** Who of an opening is not ready, with what each lacks. */
export default endpoint(
  'GET /api/openings/:opening/unready',
  { params: openingParams },
  async ({ db, who, params }) => {
    const found = await readUnready(db, params.opening, {
      catalogContext: await currentCatalogContext(),
      now: await campusNow(db)
    })
    const after = { found: found.length, opening: params.opening }
    await logAlone(db, { account: who.id, student: null, action: 'people.read', after })
    return found
  }
)
