import { openEndpoint } from '../endpoint'
import { Refused } from '../services/problem'

/** Whatever no other endpoint answers. */
export default openEndpoint({}, () => {
  throw new Refused(404, 'noSuchAddress', 'There is nothing at this address, or not by this method.')
})
