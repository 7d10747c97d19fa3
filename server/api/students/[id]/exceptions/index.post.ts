import { studentId } from '#core/ids'
import { exceptionBody, studentParams } from '#wire/bodies'
import { inTransaction } from '../../../../db/connect'
import { currentShelf, endpoint } from '../../../../endpoint'
import { mustBe } from '../../../../services/accounts/accounts'
import { grantException } from '../../../../services/degree/exceptions'
import { campusNow } from '../../../../standins/clock'

export default endpoint({ params: studentParams, body: exceptionBody }, async ({ db, who, params, body }) => {
  const id = studentId(params.id)
  const shelf = await currentShelf()
  await inTransaction(db, async (tx) => {
    await mustBe(tx, who, id, 'programAdvisor', 'registrar')
    await grantException(tx, who, id, body, { now: await campusNow(tx), shelf })
  })
})
