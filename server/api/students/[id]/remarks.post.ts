import { remarkBody } from '#shared/advising/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { addRemark } from '#server/features/advising/talk'

/** Says something in a thread, or about something. */
export default changeEndpoint(
  'POST /api/students/:id/remarks',
  { params: studentParams, body: remarkBody },
  (tx, doing, { body, relation }) => addRemark(tx, { ...doing, relation }, body)
)
