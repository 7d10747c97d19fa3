import { setCalendarAddress } from '#server/features/appointments/hours'
import { transactionEndpoint } from '#server/http/endpoint'

/** Withdraws the private calendar address of an advisor. */
export default transactionEndpoint('DELETE /api/hours/calendar-address', {}, (tx, at) =>
  setCalendarAddress(tx, at, false)
)
