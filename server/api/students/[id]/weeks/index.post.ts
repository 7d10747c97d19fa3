import { newWeekBody } from '#shared/week/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { makeDraft } from '#server/features/week/drafts'

/** Begins a draft week of a term. */
export default changeEndpoint(
  'POST /api/students/:id/weeks',
  { params: studentParams, body: newWeekBody },
  (tx, at, { body }) => makeDraft(tx, at, body)
)
