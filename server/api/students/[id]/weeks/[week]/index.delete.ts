import { weekParams } from '#wire/bodies'
import { changeEndpoint } from '../../../../../endpoint'
import { dropDraft } from '../../../../../services/week/drafts'

export default changeEndpoint(
  'DELETE /api/students/:id/weeks/:week',
  { params: weekParams },
  (tx, at, { params }) => dropDraft(tx, at, params.week),
  {
    quiet: true
  }
)
