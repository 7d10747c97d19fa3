import { accountParams } from '#shared/accounts/requests'
import { transactionEndpoint } from '#server/http/endpoint'
import { mustTakePasswords } from '#server/features/accounts/ways'
import { inviteAgain } from '#server/features/accounts/staff'

/** Gives another link by which the password is set; the one before holds no more. */
export default transactionEndpoint(
  'POST /api/accounts/:account/link',
  { params: accountParams },
  async (tx, { who }, { params }) => {
    mustTakePasswords()
    return { key: await inviteAgain(tx, who, params.account) }
  }
)
