import { requestAnswerBody } from '#shared/advising/requests'
import { inTransaction } from '#server/db/connect'
import { answerRequests } from '#server/features/advising/requestAnswers'
import { campusNow } from '#server/gateways/clock'
import { currentShelf, endpoint } from '#server/http/endpoint'

/** Decides requests with one answer, all of them or none. */
export default endpoint(
  'POST /api/requests/answers',
  { body: requestAnswerBody },
  async ({ db, who, body }) => {
    const shelf = await currentShelf()
    await inTransaction(db, async (tx) => answerRequests(tx, { who, now: await campusNow(tx), shelf }, body))
    return {}
  }
)
