import { morningBody } from '#shared/requests'
import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { mustBeDemo } from '#server/features/accounts/demo'
import { beginMorning } from '#server/features/crowd/morning'
import { theCrowd } from '#server/http/theCrowd'
import { moveClock } from '#server/jobs/moveClock'

/** Has the crowd come to the next opening. */
export default endpoint('POST /api/demo/morning', { body: morningBody }, async ({ db, who, body }) => {
  mustBeDemo()
  const catalogContext = await currentCatalogContext()
  return beginMorning(db, catalogContext, theCrowd(), body.students, async (at) => {
    await moveClock(db, who, catalogContext, 'running', at)
  })
})
