import { weekParams } from '#shared/week/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { dropDraft } from '#server/features/week/drafts'

/** Takes a draft week away. */
export default changeEndpoint(
  'DELETE /api/students/:id/weeks/:week',
  { params: weekParams },
  (tx, at, { params }) => dropDraft(tx, at, params.week)
)
