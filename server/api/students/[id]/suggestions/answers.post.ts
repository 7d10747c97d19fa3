import { suggestionAnswersBody } from '#shared/advising/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { answerSuggestions } from '#server/features/advising/suggestions'

/** Accepts or declines suggestions. */
export default changeEndpoint(
  'POST /api/students/:id/suggestions/answers',
  { params: studentParams, body: suggestionAnswersBody },
  (tx, at, { body }) => answerSuggestions(tx, at, body)
)
