import { suggestionParams, suggestionWhyBody } from '#shared/advising/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { explainSuggestion } from '#server/features/advising/suggestions'

/** Says why it is suggested. */
export default changeEndpoint(
  'POST /api/students/:id/suggestions/:suggestion',
  { params: suggestionParams, body: suggestionWhyBody },
  (tx, at, { params, body }) => explainSuggestion(tx, at, params.suggestion, body.why)
)
