import { endpoint } from '#server/http/endpoint'
import { readDeskRequests } from '#server/features/advising/deskRequests'
import { campusNow } from '#server/gateways/clock'

/** Requests that wait for whoever asks, and those they have answered. */
export default endpoint('GET /api/requests', {}, async ({ db, who }) =>
  readDeskRequests(db, who, await campusNow(db))
)
