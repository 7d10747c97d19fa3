import { groupBody } from '#shared/advising/requests'
import { planWithGroup } from '#server/features/advising/groups'
import { campusNow } from '#server/gateways/clock'
import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'

/** Offers courses of a term, or a task, to several students. */
export default endpoint('POST /api/groups', { body: groupBody }, async ({ db, who, body }) =>
  planWithGroup(db, { who, now: await campusNow(db), catalogContext: await currentCatalogContext() }, body)
)
