import { studentCourseParams } from '#shared/requests'
import { waiverAnswerBody } from '#shared/advising/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { answerWaiver } from '#server/features/advising/waivers'

/** The program advisor or the registrar grants or declines a waiver that the student asked for. */
export default changeEndpoint(
  'POST /api/students/:id/waivers/:course/answer',
  { params: studentCourseParams, body: waiverAnswerBody },
  (tx, at, { params, body }) => answerWaiver(tx, at, params.course, body.answer)
)
