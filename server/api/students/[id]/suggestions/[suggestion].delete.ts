import { suggestionParams } from '#shared/advising/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { withdrawSuggestion } from '#server/features/advising/suggestions'

/** Takes a suggestion back. */
export default changeEndpoint(
  'DELETE /api/students/:id/suggestions/:suggestion',
  { params: suggestionParams },
  (tx, at, { params }) => withdrawSuggestion(tx, at, params.suggestion)
)
