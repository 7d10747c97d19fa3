import { accountParams } from '#shared/accounts/requests'
import { inTransaction } from '#server/db/connect'
import { endpoint } from '#server/http/endpoint'
import { inviteAgain } from '#server/features/accounts/staff'

/** Gives another link by which the password is set; the one before holds no more. */
export default endpoint(
  'POST /api/accounts/:account/link',
  { params: accountParams },
  async ({ db, who, params }) => ({
    key: await inTransaction(db, (tx) => inviteAgain(tx, who, params.account))
  })
)
