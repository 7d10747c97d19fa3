import { suggestionParams } from '#shared/advising/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { withdrawSections } from '#server/features/advising/sectionSuggestions'

/** Takes a suggestion of sections back. */
export default changeEndpoint(
  'DELETE /api/students/:id/section-suggestions/:suggestion',
  { params: suggestionParams },
  (tx, doing, { params }) => withdrawSections(tx, doing, params.suggestion)
)
