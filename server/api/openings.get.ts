import { endpoint } from '../endpoint'
import { readOpenings } from '../services/students/pictures'

/** All openings are public. */
export default endpoint('GET /api/openings', {}, async ({ db }) =>
  (await readOpenings(db)).map(({ term, title, opens }) => ({ term, title, opens }))
)
