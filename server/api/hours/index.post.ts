import { hoursBody } from '#shared/appointments/requests'
import { writeHours } from '#server/features/appointments/hours'
import { transactionEndpoint } from '#server/http/endpoint'

/** All hours that an advisor offers, in place of those before. */
export default transactionEndpoint('POST /api/hours', { body: hoursBody }, async (tx, at, { body }) => {
  await writeHours(tx, at, body)
  return {}
})
