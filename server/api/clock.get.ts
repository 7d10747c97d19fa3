import { openEndpoint } from '../endpoint'
import { readClock } from '../standins/clock'

export default openEndpoint('GET /api/clock', {}, ({ db }) => readClock(db))
