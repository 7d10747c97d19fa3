import { openEndpoint } from '../endpoint'
import { readClock } from '../standins/clock'

export default openEndpoint({}, ({ db }) => readClock(db))
