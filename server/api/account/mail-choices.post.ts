import { inTransaction } from '#server/db/connect'
import { writeChoices } from '#server/features/mail/digests'
import { campusNow } from '#server/gateways/clock'
import { endpoint } from '#server/http/endpoint'
import { mailChoicesBody } from '#shared/mail/choices'

/** Chooses what to be mailed, and when. */
export default endpoint(
  'POST /api/account/mail-choices',
  { body: mailChoicesBody },
  async ({ db, who, body }) => {
    await inTransaction(db, async (tx) => writeChoices(tx, { who, now: await campusNow(tx) }, body))
    return {}
  }
)
