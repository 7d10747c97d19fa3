import { endpoint } from '#server/http/endpoint'
import { readOpenings } from '#server/features/registration/openings'

/** All openings are public. */
export default endpoint('GET /api/openings', {}, async ({ db }) =>
  (await readOpenings(db)).map(({ term, title, opens }) => ({ term, title, opens }))
)
