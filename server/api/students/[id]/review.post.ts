import { studentParams } from '#wire/bodies'
import { changeEndpoint } from '../../../endpoint'
import { askForReview } from '../../../services/route/route'

export default changeEndpoint(
  'POST /api/students/:id/review',
  { params: studentParams },
  (tx, { who, student, now }) => askForReview(tx, who, student, now),
  { quiet: true }
)
