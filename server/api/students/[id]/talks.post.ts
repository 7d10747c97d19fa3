import { talkRecordBody } from '#shared/appointments/requests'
import { studentParams } from '#shared/requests'
import { recordTalk } from '#server/features/advising/talkRecords'
import { changeEndpoint } from '#server/http/endpoint'

/** Records a talk that was held. */
export default changeEndpoint(
  'POST /api/students/:id/talks',
  { params: studentParams, body: talkRecordBody },
  (tx, at, { body }) => recordTalk(tx, at, body)
)
