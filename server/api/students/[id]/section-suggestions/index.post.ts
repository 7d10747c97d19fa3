import { sectionsBody } from '#shared/advising/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { suggestSections } from '#server/features/advising/sectionSuggestions'

/** Suggests sections for a course of a term. */
export default changeEndpoint(
  'POST /api/students/:id/section-suggestions',
  { params: studentParams, body: sectionsBody },
  (tx, doing, { body }) => suggestSections(tx, doing, body)
)
