import { accountParams } from '#shared/accounts/requests'
import { inTransaction } from '#server/db/connect'
import { endpoint } from '#server/http/endpoint'
import { endAll } from '#server/features/accounts/sessions'
import { endAccount } from '#server/features/accounts/staff'

/** Ends an account; wherever it is signed in, it is signed out. */
export default endpoint(
  'DELETE /api/accounts/:account',
  { params: accountParams },
  async ({ db, who, params }) => {
    await inTransaction(db, (tx) => endAccount(tx, who, params.account))
    await endAll(db, params.account)
    return {}
  }
)
