import { openEndpoint } from '../endpoint'
import { whoIs } from '../services/accounts/accounts'
import { Refused } from '../services/problem'

/** Who is signed in; null when nobody is. */
export default openEndpoint({}, async ({ event, db }) => {
  const session = await getUserSession(event)
  const id = (session.user as { id?: number } | undefined)?.id
  if (!id) return null
  try {
    return await whoIs(db, id)
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    await clearUserSession(event)
    return null
  }
})
