import { currentShelf, endpoint } from '../../endpoint'
import { mustBeDemoRegistrar } from '../../services/accounts/accounts'
import { readGradesDue } from '../../services/record/grades'
import { campusNow } from '../../standins/clock'

/** Terms that are over and wait for grades. */
export default endpoint({}, async ({ db, who }) => {
  mustBeDemoRegistrar(who)
  const { zone } = await currentShelf()
  return readGradesDue(db, { now: await campusNow(db), zone })
})
