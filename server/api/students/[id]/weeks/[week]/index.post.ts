import { changeWeekBody, weekParams } from '#wire/bodies'
import { changeEndpoint } from '../../../../../endpoint'
import { changeDraft } from '../../../../../services/week/drafts'

export default changeEndpoint(
  'POST /api/students/:id/weeks/:week',
  { params: weekParams, body: changeWeekBody },
  (tx, at, { params, body }) => changeDraft(tx, at, params.week, body),
  { quiet: true }
)
