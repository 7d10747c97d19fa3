import { newWeekBody } from '#shared/week/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { makeDraft } from '#server/features/week/drafts'

export default changeEndpoint(
  'POST /api/students/:id/weeks',
  { params: studentParams, body: newWeekBody },
  (tx, at, { body }) => makeDraft(tx, at, body)
)
