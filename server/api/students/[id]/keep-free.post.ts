import { keepFreeBody, studentParams } from '#wire/bodies'
import { routeEndpoint } from '../../../routeEndpoint'
import { writeKeepFree } from '../../../services/week/habits'

export default routeEndpoint(
  { params: studentParams, body: keepFreeBody },
  (tx, at, { body }) => writeKeepFree(tx, at, body.hours),
  { quiet: true }
)
