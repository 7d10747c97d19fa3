import { pickBody } from '#shared/week/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { pick } from '#server/features/week/pick'

/** Picks an option of a course for a draft week, or takes the pick back. */
export default changeEndpoint(
  'POST /api/students/:id/picks',
  { params: studentParams, body: pickBody },
  (tx, { who, student, now, zone }, { body }) => pick(tx, who, student, body, { now, zone })
)
