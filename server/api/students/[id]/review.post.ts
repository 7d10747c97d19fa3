import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { askForReview } from '#server/features/route/routes'

export default changeEndpoint(
  'POST /api/students/:id/review',
  { params: studentParams },
  (tx, { who, student, now }) => askForReview(tx, who, student, now)
)
