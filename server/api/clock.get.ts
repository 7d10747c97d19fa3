import { openEndpoint } from '#server/http/endpoint'
import { readClock } from '#server/gateways/clock'

/** The time on campus. */
export default openEndpoint('GET /api/clock', {}, ({ db }) => readClock(db))
