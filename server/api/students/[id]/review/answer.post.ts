import { notYetBody } from '#shared/advising/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { answerNotYet } from '#server/features/advising/reviews'

/** Says that a term is not to be signed off yet, and what is missing. */
export default changeEndpoint(
  'POST /api/students/:id/review/answer',
  { params: studentParams, body: notYetBody },
  (tx, doing, { body }) => answerNotYet(tx, doing, body)
)
