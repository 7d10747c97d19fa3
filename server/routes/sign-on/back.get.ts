import { getRequestURL } from 'h3'
import { sayFailed } from '#server/gateways/log'
import { signOnAs } from '#server/features/accounts/signOn'
import { openEndpoint } from '#server/http/endpoint'
import { Refused } from '#server/http/problem'
import { beginSession } from '#server/http/session'
import { mustSignOn, sendOn, takeKept } from '#server/http/signingOn'
import { theSettings } from '#server/settings'

/** Back from the sign-on of the institution: signed in, or at our own door with what stood in the way. */
export default openEndpoint('GET /sign-on/back', {}, async ({ event, db }) => {
  const { signOn, back } = mustSignOn()
  const kept = takeKept(event)
  try {
    if (!kept) throw new Error('nothing was kept of how it began')
    const at = new URL(back)
    at.search = getRequestURL(event).search
    const said = await signOn.finish(at, kept)
    await beginSession(event, db, await signOnAs(db, said, theSettings().signOn!.roles))
    return sendOn(event, `/sign-in?next=${encodeURIComponent(kept.next)}`)
  } catch (error) {
    if (!(error instanceof Refused)) sayFailed('Somebody did not come through the sign-on', error)
    return sendOn(event, `/sign-in?refused=${error instanceof Refused ? error.code : 'signOnFailed'}`)
  }
})
