import { openEndpoint } from '#server/http/endpoint'
import { readClock } from '#server/gateways/clock'

export default openEndpoint('GET /api/clock', {}, ({ db }) => readClock(db))
