import { studentParams, termQuery } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { withdrawReview } from '#server/features/advising/reviews'

/** Withdraws the wish for a review of a term. */
export default changeEndpoint(
  'DELETE /api/students/:id/review',
  { params: studentParams, query: termQuery },
  (tx, doing, { query }) => withdrawReview(tx, doing, query.term)
)
