import { exceptionParams } from '#shared/degree/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { withdrawException } from '#server/features/degree/exceptions'

/** Withdraws a waiver or a substitution. */
export default changeEndpoint(
  'DELETE /api/students/:id/exceptions/:exception',
  { params: exceptionParams },
  (tx, { who, student, now }, { params }) => withdrawException(tx, who, student, params.exception, now)
)
