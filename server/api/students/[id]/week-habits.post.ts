import { habitsBody, studentParams } from '#wire/bodies'
import { routeEndpoint } from '../../../routeEndpoint'
import { writeHabits } from '../../../services/week/habits'

export default routeEndpoint(
  { params: studentParams, body: habitsBody },
  (tx, at, { body }) => writeHabits(tx, at, body),
  { quiet: true }
)
