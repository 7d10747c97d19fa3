import { currentShelf, endpoint } from '#server/http/endpoint'
import { readApplications } from '#server/features/degree/graduation'
import { campusNow } from '#server/gateways/clock'

export default endpoint('GET /api/graduations', {}, async ({ db }) =>
  readApplications(db, { shelf: await currentShelf(), now: await campusNow(db) })
)
