import { studentParams, termQuery } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { withdrawSignOff } from '#server/features/advising/signOff'

/** Takes the sign-off of a term back. */
export default changeEndpoint(
  'DELETE /api/students/:id/sign-off',
  { params: studentParams, query: termQuery },
  (tx, { who, student, now }, { query }) => withdrawSignOff(tx, who, student, query.term, now)
)
