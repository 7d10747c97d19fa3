import { invitationBody } from '#shared/accounts/requests'
import { transactionEndpoint } from '#server/http/endpoint'
import { invite } from '#server/features/accounts/staff'

/** Makes an account; the link by which its password is set is told once. */
export default transactionEndpoint(
  'POST /api/accounts',
  { body: invitationBody },
  async (tx, { who }, { body }) => ({ key: await invite(tx, who, body) })
)
