import { exceptionParams } from '#wire/bodies'
import { changeEndpoint } from '../../../../endpoint'
import { withdrawException } from '../../../../services/degree/exceptions'

export default changeEndpoint(
  'DELETE /api/students/:id/exceptions/:exception',
  { params: exceptionParams },
  (tx, { who, student, now }, { params }) => withdrawException(tx, who, student, params.exception, now),
  { quiet: true }
)
