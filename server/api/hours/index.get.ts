import { readHours } from '#server/features/appointments/hours'
import { campusNow } from '#server/gateways/clock'
import { endpoint } from '#server/http/endpoint'

/** The hours that an advisor offers, and who comes. */
export default endpoint('GET /api/hours', {}, async ({ db, who }) => readHours(db, who, await campusNow(db)))
