import { agreementBody } from '#shared/registration/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { acceptAgreement } from '#server/features/registration/agreements'

/** Accepts the terms of registration of a term, as they were read. */
export default changeEndpoint(
  'POST /api/students/:id/agreement',
  { params: studentParams, body: agreementBody },
  (tx, at, { body }) => acceptAgreement(tx, at, body)
)
