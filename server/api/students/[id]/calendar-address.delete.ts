import { studentParams } from '#wire/bodies'
import { changeEndpoint } from '../../../endpoint'
import { withdrawCalendarAddress } from '../../../services/week/habits'

export default changeEndpoint(
  'DELETE /api/students/:id/calendar-address',
  { params: studentParams },
  (tx, at) => withdrawCalendarAddress(tx, at),
  {
    quiet: true
  }
)
