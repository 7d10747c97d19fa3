import { studentId } from '#core/ids'
import { exceptionParams } from '#wire/bodies'
import { inTransaction } from '../../../../db/connect'
import { endpoint } from '../../../../endpoint'
import { mustBe } from '../../../../services/accounts/accounts'
import { withdrawException } from '../../../../services/degree/exceptions'
import { campusNow } from '../../../../standins/clock'

export default endpoint({ params: exceptionParams }, async ({ db, who, params }) => {
  const id = studentId(params.id)
  await inTransaction(db, async (tx) => {
    await mustBe(tx, who, id, 'programAdvisor', 'registrar')
    await withdrawException(tx, who, id, params.exception, await campusNow(tx))
  })
})
