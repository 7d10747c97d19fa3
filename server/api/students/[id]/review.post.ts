import { studentId } from '#core/ids'
import { studentParams } from '#wire/bodies'
import { inTransaction } from '../../../db/connect'
import { endpoint } from '../../../endpoint'
import { mustBe } from '../../../services/accounts/accounts'
import { askForReview } from '../../../services/route/route'
import { campusNow } from '../../../standins/clock'

export default endpoint({ params: studentParams }, async ({ db, who, params }) => {
  const id = studentId(params.id)
  await inTransaction(db, async (tx) => {
    await mustBe(tx, who, id, 'self')
    await askForReview(tx, who, id, await campusNow(tx))
  })
})
