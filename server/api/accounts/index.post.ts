import { invitationBody } from '#shared/accounts/requests'
import { inTransaction } from '#server/db/connect'
import { endpoint } from '#server/http/endpoint'
import { invite } from '#server/features/accounts/staff'

/** Makes an account; the link by which its password is set is told once. */
export default endpoint('POST /api/accounts', { body: invitationBody }, async ({ db, who, body }) => ({
  key: await inTransaction(db, (tx) => invite(tx, who, body))
}))
