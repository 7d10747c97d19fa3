import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { withdrawCalendarAddress } from '#server/features/week/habits'

/** Withdraws the private calendar address of a student. */
export default changeEndpoint(
  'DELETE /api/students/:id/calendar-address',
  { params: studentParams },
  (tx, at) => withdrawCalendarAddress(tx, at)
)
