import { changeWeekBody, weekParams } from '#wire/bodies'
import { routeEndpoint } from '../../../../../routeEndpoint'
import { changeDraft } from '../../../../../services/week/drafts'

export default routeEndpoint(
  { params: weekParams, body: changeWeekBody },
  (tx, at, { params, body }) => changeDraft(tx, at, params.week, body),
  { quiet: true }
)
