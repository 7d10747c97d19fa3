import { placingBody } from '#shared/offices/placingRequests'
import { termParams } from '#shared/requests'
import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { logAlone } from '#server/db/log'
import { proposePlacing } from '#server/features/offices/placing'
import { campusNow } from '#server/gateways/clock'

/** Proposes sections for the next students of a group; nobody is registered by it. */
export default endpoint(
  'POST /api/terms/:code/placing',
  { params: termParams, body: placingBody },
  async ({ db, who, params, body }) => {
    const at = { catalogContext: await currentCatalogContext(), now: await campusNow(db) }
    const piece = await proposePlacing(db, params.code, body, at)
    const found = piece.students.length
    if (found)
      await logAlone(db, {
        account: who.id,
        student: null,
        action: 'people.read',
        after: { found, term: params.code }
      })
    return piece
  }
)
