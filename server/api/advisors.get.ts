import { readAdvisors } from '#server/features/advising/handOver'
import { endpoint } from '#server/http/endpoint'

/** Everybody who advises: to whom students are handed over, and who stands in. */
export default endpoint('GET /api/advisors', {}, ({ db }) => readAdvisors(db))
