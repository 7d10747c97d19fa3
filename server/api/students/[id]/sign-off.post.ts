import { studentParams, termBody } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { signOffTerm } from '#server/features/advising/advising'

/** Signs a term of the chosen route off. */
export default changeEndpoint(
  'POST /api/students/:id/sign-off',
  { params: studentParams, body: termBody },
  (tx, { who, student, now, zone }, { body }) => signOffTerm(tx, who, student, body.term, { now, zone })
)
