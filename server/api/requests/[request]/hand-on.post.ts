import { handOnBody, handOnParams } from '#shared/advising/requests'
import { handOn } from '#server/features/advising/requestAnswers'
import { officeEndpoint } from '#server/http/endpoint'

/** Hands a request on to somebody else who has to do with it. */
export default officeEndpoint(
  'POST /api/requests/:request/hand-on',
  { params: handOnParams, body: handOnBody },
  async (tx, at, { params, body }) => {
    await handOn(tx, at, params.request, body)
    return {}
  }
)
