import { invitationBody } from '#shared/accounts/requests'
import { transactionEndpoint } from '#server/http/endpoint'
import { waysIn } from '#server/features/accounts/ways'
import { invite } from '#server/features/accounts/staff'

/** Makes an account; the link by which its password is set, where passwords count, is told once. */
export default transactionEndpoint(
  'POST /api/accounts',
  { body: invitationBody },
  async (tx, { who }, { body }) => {
    const key = await invite(tx, who, body)
    return { key: waysIn().passwords ? key : null }
  }
)
