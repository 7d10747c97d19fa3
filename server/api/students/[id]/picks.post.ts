import { studentId } from '#core/ids'
import { pickBody, studentParams } from '#wire/bodies'
import { inTransaction } from '../../../db/connect'
import { currentShelf, endpoint } from '../../../endpoint'
import { mustBe } from '../../../services/accounts/accounts'
import { pick } from '../../../services/week/pick'
import { campusNow } from '../../../standins/clock'

/** Picks an option of a course for a draft week, or takes the pick back. */
export default endpoint({ params: studentParams, body: pickBody }, async ({ db, who, params, body }) => {
  const id = studentId(params.id)
  const { zone } = await currentShelf()
  return inTransaction(db, async (tx) => {
    await mustBe(tx, who, id, 'self')
    return pick(tx, who, id, body, { now: await campusNow(tx), zone })
  })
})
