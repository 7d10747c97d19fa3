import { mustTakePasswords } from '#server/features/accounts/ways'
import { lostBody } from '#shared/accounts/requests'
import { inTransaction } from '#server/db/connect'
import { askForLink } from '#server/features/accounts/links'
import { campusNow } from '#server/gateways/clock'
import { openEndpoint } from '#server/http/endpoint'
import { addressOf } from '#server/http/session'
import { theSignInAttempts } from '#server/http/thisServer'

/** Mails a link by which a password that was lost is set anew; it is not said whether there is such an account. */
export default openEndpoint('POST /api/session/link', { body: lostBody }, async ({ event, db, body }) => {
  mustTakePasswords()
  await theSignInAttempts().begin(`link ${body.name}`, addressOf(event))
  await inTransaction(db, async (tx) => askForLink(tx, { name: body.name, now: await campusNow(tx) }))
  return {}
})
