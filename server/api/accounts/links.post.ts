import { mustTakePasswords } from '#server/features/accounts/ways'
import { mailLinks } from '#server/features/accounts/links'
import { transactionEndpoint } from '#server/http/endpoint'

/** Mails links by which a password is set to students who cannot sign in yet, so many at once. */
export default transactionEndpoint('POST /api/accounts/links', {}, (tx, at) => {
  mustTakePasswords()
  return mailLinks(tx, at)
})
