import { studentId } from '#core/ids'
import { studentParams, termBody } from '#wire/bodies'
import { inTransaction } from '../../../db/connect'
import { currentShelf, endpoint } from '../../../endpoint'
import { mustBe } from '../../../services/accounts/accounts'
import { signOffTerm } from '../../../services/advising/advising'
import { campusNow } from '../../../standins/clock'

export default endpoint({ params: studentParams, body: termBody }, async ({ db, who, params, body }) => {
  const id = studentId(params.id)
  const { zone } = await currentShelf()
  await inTransaction(db, async (tx) => {
    await mustBe(tx, who, id, 'programAdvisor')
    await signOffTerm(tx, who, id, body.term, { now: await campusNow(tx), zone })
  })
})
