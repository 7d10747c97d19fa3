import { writeChoices } from '#server/features/mail/digests'
import { transactionEndpoint } from '#server/http/endpoint'
import { mailChoicesBody } from '#shared/mail/choices'

/** Chooses what to be mailed, and when. */
export default transactionEndpoint(
  'POST /api/account/mail-choices',
  { body: mailChoicesBody },
  async (tx, at, { body }) => {
    await writeChoices(tx, at, body)
    return {}
  }
)
