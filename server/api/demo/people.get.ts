import { openEndpoint } from '../../endpoint'
import { demoPeople } from '../../services/accounts/accounts'
import { mustBeDemo } from '../../services/accounts/demo'

export default openEndpoint('GET /api/demo/people', {}, async ({ db }) => {
  mustBeDemo()
  return demoPeople(db)
})
