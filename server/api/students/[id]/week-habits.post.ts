import { habitsBody, studentParams } from '#wire/bodies'
import { changeEndpoint } from '../../../endpoint'
import { writeHabits } from '../../../services/week/habits'

export default changeEndpoint(
  'POST /api/students/:id/week-habits',
  { params: studentParams, body: habitsBody },
  (tx, at, { body }) => writeHabits(tx, at, body),
  { quiet: true }
)
