import { studentId } from '#core/ids'
import { studentParams, termQuery } from '#wire/bodies'
import { inTransaction } from '../../../db/connect'
import { endpoint } from '../../../endpoint'
import { mustBe } from '../../../services/accounts/accounts'
import { withdrawSignOff } from '../../../services/advising/advising'
import { campusNow } from '../../../standins/clock'

export default endpoint({ params: studentParams, query: termQuery }, async ({ db, who, params, query }) => {
  const id = studentId(params.id)
  await inTransaction(db, async (tx) => {
    await mustBe(tx, who, id, 'programAdvisor')
    await withdrawSignOff(tx, who, id, query.term, await campusNow(tx))
  })
})
