import { readMails } from '#server/features/mail/mails'
import { currentShelf, endpoint } from '#server/http/endpoint'

/** What was mailed to whoever asks. */
export default endpoint('GET /api/account/mails', {}, async ({ db, who }) =>
  readMails(db, who.id, await currentShelf())
)
