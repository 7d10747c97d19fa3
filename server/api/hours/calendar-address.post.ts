import { setCalendarAddress } from '#server/features/appointments/hours'
import { transactionEndpoint } from '#server/http/endpoint'

/** Makes a private calendar address of an advisor. */
export default transactionEndpoint('POST /api/hours/calendar-address', {}, (tx, at) =>
  setCalendarAddress(tx, at, true)
)
