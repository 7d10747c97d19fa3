import { studentId } from '#core/ids'
import { routeChangeBody, studentParams } from '#wire/bodies'
import { inTransaction } from '../../../db/connect'
import { currentShelf, endpoint } from '../../../endpoint'
import { mustBe } from '../../../services/accounts/accounts'
import { changeRoute } from '../../../services/route/route'
import { campusNow } from '../../../standins/clock'

export default endpoint(
  { params: studentParams, body: routeChangeBody },
  async ({ db, who, params, body }) => {
    const id = studentId(params.id)
    const { zone } = await currentShelf()
    return inTransaction(db, async (tx) => {
      await mustBe(tx, who, id, 'self')
      return changeRoute(tx, who, id, body, { now: await campusNow(tx), zone })
    })
  }
)
