import { newWeekBody, studentParams } from '#wire/bodies'
import { routeEndpoint } from '../../../../routeEndpoint'
import { makeDraft } from '../../../../services/week/drafts'

export default routeEndpoint(
  { params: studentParams, body: newWeekBody },
  (tx, at, { body }) => makeDraft(tx, at, body),
  { quiet: true }
)
