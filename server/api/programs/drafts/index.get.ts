import { readPlans } from '#server/features/degree/programDrafts'
import { endpoint } from '#server/http/endpoint'

/** All programs with their versions, and what is being written. */
export default endpoint('GET /api/programs/drafts', {}, ({ db }) => readPlans(db))
