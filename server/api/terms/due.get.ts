import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { mustBeDemo } from '#server/features/accounts/demo'
import { readGradesDue } from '#server/features/record/grades'
import { campusNow } from '#server/gateways/clock'

/** Terms that are over and wait for grades; a college has its own system for them. */
export default endpoint('GET /api/terms/due', {}, async ({ db }) => {
  mustBeDemo()
  const { zone } = await currentCatalogContext()
  return readGradesDue(db, { now: await campusNow(db), zone })
})
