import { signOffBody } from '#shared/advising/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { signOffTerm } from '#server/features/advising/signOff'

/** Signs a term of the chosen route off. */
export default changeEndpoint(
  'POST /api/students/:id/sign-off',
  { params: studentParams, body: signOffBody },
  (tx, { who, student, now, zone }, { body }) => signOffTerm(tx, who, student, body, { now, zone })
)
