import { readSecondStep } from '#server/features/accounts/secondStep'
import { sessionEndpoint } from '#server/http/endpoint'

/** Whether signing in asks for a code as well. */
export default sessionEndpoint('GET /api/account/second-step', {}, ({ db, who }) =>
  readSecondStep(db, who.id)
)
