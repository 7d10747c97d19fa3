import { handOnBody, handOnParams } from '#shared/advising/requests'
import { inTransaction } from '#server/db/connect'
import { handOn } from '#server/features/advising/requestAnswers'
import { campusNow } from '#server/gateways/clock'
import { endpoint } from '#server/http/endpoint'

/** Hands a request on to somebody else who has to do with it. */
export default endpoint(
  'POST /api/requests/:request/hand-on',
  { params: handOnParams, body: handOnBody },
  async ({ db, who, params, body }) => {
    await inTransaction(db, async (tx) => handOn(tx, { who, now: await campusNow(tx) }, params.request, body))
    return {}
  }
)
