import { requestAnswerBody } from '#shared/advising/requests'
import { answerRequests } from '#server/features/advising/requestAnswers'
import { officeEndpoint } from '#server/http/endpoint'

/** Decides requests with one answer, all of them or none. */
export default officeEndpoint(
  'POST /api/requests/answers',
  { body: requestAnswerBody },
  async (tx, at, { body }) => {
    await answerRequests(tx, at, body)
    return {}
  }
)
