import { studentCourseParams, waiverAnswerBody } from '#wire/bodies'
import { changeEndpoint } from '../../../../../endpoint'
import { answerWaiver } from '../../../../../services/advising/waivers'

/** The program advisor or the registrar grants or declines a waiver that the student asked for. */
export default changeEndpoint(
  'POST /api/students/:id/waivers/:course/answer',
  { params: studentCourseParams, body: waiverAnswerBody },
  (tx, at, { params, body }) => answerWaiver(tx, at, params.course, body.answer)
)
