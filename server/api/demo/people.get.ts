import { openEndpoint } from '../../endpoint'
import { demoPeople } from '../../services/accounts/accounts'
import { Refused } from '../../services/problem'

export default openEndpoint({}, async ({ db }) => {
  if (process.env.RIDGEWAY_DEMO !== '1')
    throw new Refused(404, 'noDemo', 'This server does not run the demo.')
  return demoPeople(db)
})
