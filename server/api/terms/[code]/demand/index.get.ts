import { termParams } from '#shared/requests'
import { endpoint } from '#server/http/endpoint'
import { readDemand } from '#server/features/sections/demand'
import { campusNow } from '#server/gateways/clock'

/** What is planned and handed in for a term, course by course, beside its seats; of a department its own subjects. */
export default endpoint('GET /api/terms/:code/demand', { params: termParams }, async ({ db, who, params }) =>
  readDemand(db, who, params.code, await campusNow(db))
)
