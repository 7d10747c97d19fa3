import { changeWeekBody, weekParams } from '#shared/week/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { changeDraft } from '#server/features/week/drafts'

/** Names, notes, shares or chooses a draft week. */
export default changeEndpoint(
  'POST /api/students/:id/weeks/:week',
  { params: weekParams, body: changeWeekBody },
  (tx, at, { params, body }) => changeDraft(tx, at, params.week, body)
)
