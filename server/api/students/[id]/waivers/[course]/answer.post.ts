import { studentId } from '#core/ids'
import { studentCourseParams, waiverAnswerBody } from '#wire/bodies'
import { inTransaction } from '../../../../../db/connect'
import { endpoint } from '../../../../../endpoint'
import { announce } from '../../../../../live'
import { mustBe } from '../../../../../services/accounts/accounts'
import { answerWaiver } from '../../../../../services/advising/waivers'
import { campusNow } from '../../../../../standins/clock'

/** The program advisor or the registrar grants or declines a waiver that the student asked for. */
export default endpoint(
  { params: studentCourseParams, body: waiverAnswerBody },
  async ({ db, who, params, body }) => {
    const student = studentId(params.id)
    await inTransaction(db, async (tx) => {
      await mustBe(tx, who, student, 'programAdvisor', 'registrar')
      await answerWaiver(tx, { who, student, now: await campusNow(tx) }, params.course, body.answer)
    })
    announce(student, { by: who.name, route: null, version: null })
  }
)
