import { inTransaction } from '#server/db/connect'
import { setCalendarAddress } from '#server/features/appointments/hours'
import { campusNow } from '#server/gateways/clock'
import { endpoint } from '#server/http/endpoint'

/** Makes a private calendar address of an advisor. */
export default endpoint('POST /api/hours/calendar-address', {}, ({ db, who }) =>
  inTransaction(db, async (tx) => setCalendarAddress(tx, { who, now: await campusNow(tx) }, true))
)
