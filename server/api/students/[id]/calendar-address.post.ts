import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { makeCalendarAddress } from '#server/features/week/habits'

/** Makes a private calendar address; one there was before leads nowhere from then on. */
export default changeEndpoint(
  'POST /api/students/:id/calendar-address',
  { params: studentParams },
  (tx, at) => makeCalendarAddress(tx, at)
)
