import { readMails } from '#server/features/mail/mails'
import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { theSettings } from '#server/settings'

/** What was mailed to whoever asks. */
export default endpoint('GET /api/account/mails', {}, async ({ db, who }) => {
  const mails = await readMails(db, who.id, await currentCatalogContext())
  return theSettings().smtp ? mails : mails.map((mail) => ({ ...mail, state: null }))
})
