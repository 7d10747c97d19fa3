import { habitsBody } from '#shared/week/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { writeHabits } from '#server/features/week/habits'

/** Sets what makes a week a good one, for all terms. */
export default changeEndpoint(
  'POST /api/students/:id/week-habits',
  { params: studentParams, body: habitsBody },
  (tx, at, { body }) => writeHabits(tx, at, body)
)
