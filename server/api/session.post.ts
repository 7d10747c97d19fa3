import { signInBody } from '#wire/bodies'
import { openEndpoint } from '../endpoint'
import { signIn } from '../services/accounts/accounts'

export default openEndpoint({ body: signInBody }, async ({ event, db, body }) => {
  const who = await signIn(db, body.name, body.password)
  await replaceUserSession(event, { user: { id: who.id } })
  return who
})
