import { openEndpoint } from '#server/http/endpoint'
import { demoPeople } from '#server/features/accounts/accounts'
import { mustBeDemo } from '#server/features/accounts/demo'

/** People of the demo whom one may sign in as; there are none outside the demo. */
export default openEndpoint('GET /api/demo/people', {}, async ({ db }) => {
  mustBeDemo()
  return demoPeople(db)
})
