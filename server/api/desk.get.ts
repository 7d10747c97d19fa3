import { currentShelf, endpoint } from '../endpoint'
import { readDesk } from '../services/advising/advising'
import { Refused } from '../services/problem'
import { campusNow } from '../standins/clock'

export default endpoint({}, async ({ db, who }) => {
  if (who.role !== 'programAdvisor' && who.role !== 'supportAdvisor') {
    throw new Refused(403, 'notAllowed', 'The desk belongs to advisors.')
  }
  return readDesk(db, who, await currentShelf(), await campusNow(db))
})
