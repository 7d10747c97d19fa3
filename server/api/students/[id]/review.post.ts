import { reviewBody } from '#shared/advising/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { askForReview } from '#server/features/advising/reviews'

/** Asks for a review of a term of the chosen route. */
export default changeEndpoint(
  'POST /api/students/:id/review',
  { params: studentParams, body: reviewBody },
  async (tx, doing, { body }) => askForReview(tx, doing, await currentCatalogContext(), body)
)
