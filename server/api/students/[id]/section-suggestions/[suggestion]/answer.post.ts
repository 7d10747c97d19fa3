import { sectionsAnswerBody, suggestionParams } from '#shared/advising/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { answerSections } from '#server/features/advising/sectionSuggestions'

/** Accepts or declines a suggestion of sections. */
export default changeEndpoint(
  'POST /api/students/:id/section-suggestions/:suggestion/answer',
  { params: suggestionParams, body: sectionsAnswerBody },
  (tx, doing, { params, body }) => answerSections(tx, doing, params.suggestion, body.answer)
)
