import { z } from 'zod'
import { sayFailed } from '#server/gateways/log'
import { openEndpoint } from '#server/http/endpoint'
import { keepWhileAway, mustSignOn, sendOn } from '#server/http/signingOn'

/** Where somebody wanted to go, as a place of ours. */
const query = z.object({ next: z.string().max(500).catch('').default('') })

/** To the sign-on of the institution, which leads back. */
export default openEndpoint('GET /sign-on', { query }, async ({ event, query: { next } }) => {
  const { signOn, back } = mustSignOn()
  try {
    const { to, kept } = await signOn.begin(back)
    keepWhileAway(event, { ...kept, next })
    return sendOn(event, to.href)
  } catch (error) {
    sayFailed('The sign-on was not reached', error)
    return sendOn(event, '/sign-in?refused=signOnFailed')
  }
})
