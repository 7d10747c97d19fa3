import { programAnswerBody } from '#shared/degree/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { answerProgram } from '#server/features/degree/answer'

/** Says that a program on the record is right, or wrong. */
export default changeEndpoint(
  'POST /api/students/:id/program',
  { params: studentParams, body: programAnswerBody },
  (tx, { who, student, now }, { body }) => answerProgram(tx, who, student, body, now)
)
