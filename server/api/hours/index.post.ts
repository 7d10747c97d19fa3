import { hoursBody } from '#shared/appointments/requests'
import { inTransaction } from '#server/db/connect'
import { writeHours } from '#server/features/appointments/hours'
import { campusNow } from '#server/gateways/clock'
import { endpoint } from '#server/http/endpoint'

/** All hours that an advisor offers, in place of those before. */
export default endpoint('POST /api/hours', { body: hoursBody }, async ({ db, who, body }) => {
  await inTransaction(db, async (tx) => writeHours(tx, { who, now: await campusNow(tx) }, body))
  return {}
})
