import { studentId } from '#core/ids'
import { programAnswerBody, studentParams } from '#wire/bodies'
import { inTransaction } from '../../../db/connect'
import { endpoint } from '../../../endpoint'
import { mustBe } from '../../../services/accounts/accounts'
import { answerProgram } from '../../../services/degree/answer'
import { campusNow } from '../../../standins/clock'

export default endpoint(
  { params: studentParams, body: programAnswerBody },
  async ({ db, who, params, body }) => {
    const id = studentId(params.id)
    await inTransaction(db, async (tx) => {
      await mustBe(tx, who, id, 'self')
      await answerProgram(tx, who, id, body, await campusNow(tx))
    })
  }
)
