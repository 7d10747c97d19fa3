import { currentShelf, endpoint } from '../../endpoint'
import { mustBeDemo } from '../../services/accounts/demo'
import { readGradesDue } from '../../services/record/grades'
import { campusNow } from '../../standins/clock'

/** Terms that are over and wait for grades; a college has its own system for them. */
export default endpoint('GET /api/terms/due', {}, async ({ db }) => {
  mustBeDemo()
  const { zone } = await currentShelf()
  return readGradesDue(db, { now: await campusNow(db), zone })
})
