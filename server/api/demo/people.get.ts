import { openEndpoint } from '#server/http/endpoint'
import { demoPeople } from '#server/features/accounts/accounts'
import { mustBeDemo } from '#server/features/accounts/demo'

export default openEndpoint('GET /api/demo/people', {}, async ({ db }) => {
  mustBeDemo()
  return demoPeople(db)
})
