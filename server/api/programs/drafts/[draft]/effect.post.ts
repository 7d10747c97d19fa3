import { draftEffectBody, draftParams } from '#shared/degree/draftRequests'
import { effectOfDraft } from '#server/features/degree/programPublishing'
import { campusNow } from '#server/gateways/clock'
import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'

/** What a text would make of the degrees of some students; nothing is kept. */
export default endpoint(
  'POST /api/programs/drafts/:draft/effect',
  { params: draftParams, body: draftEffectBody },
  async ({ db, params, body }) =>
    effectOfDraft(db, params.draft, body, {
      catalogContext: await currentCatalogContext(),
      now: await campusNow(db)
    })
)
