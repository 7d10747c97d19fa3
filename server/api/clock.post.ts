import { clockBody } from '#shared/requests'
import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { mustBeDemo } from '#server/features/accounts/demo'
import { moveClock } from '#server/jobs/moveClock'

/** Sets the campus clock: everybody's in the demo, and nobody's anywhere else. */
export default endpoint('POST /api/clock', { body: clockBody }, async ({ db, who, body }) => {
  mustBeDemo()
  const at = 'at' in body && body.at ? Date.parse(body.at) : undefined
  return moveClock(db, who, await currentCatalogContext(), body.mode, at)
})
