import { endpoint } from '#server/http/endpoint'
import { mustBeDemo } from '#server/features/accounts/demo'
import { theCrowd } from '#server/http/theCrowd'

/** How the opening morning goes. */
export default endpoint('GET /api/demo/morning', {}, () => {
  mustBeDemo()
  return Promise.resolve(theCrowd().view())
})
