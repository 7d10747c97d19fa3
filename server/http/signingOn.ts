/** What a browser keeps while it is at the sign-on, and where it is sent. */
import { deleteCookie, getCookie, setCookie, setResponseHeader, setResponseStatus, type H3Event } from 'h3'
import { z } from 'zod'
import { theSignOn, type SignOn } from '#server/gateways/signOn'
import { theSettings } from '#server/settings'
import { Refused } from './problem'

const NAME = 'ridgeway-sign-on'
const KEPT_SECONDS = 600
const kept = z.object({ state: z.string(), nonce: z.string(), verifier: z.string(), next: z.string() })
export type Kept = z.infer<typeof kept>

/** Of this way alone. It comes along from the sign-on, which is another site: what it starts is a reading. */
const attributes = () =>
  ({ httpOnly: true, sameSite: 'lax', secure: theSettings().isHttps, path: '/sign-on' }) as const

export function keepWhileAway(event: H3Event, what: Kept): void {
  const text = Buffer.from(JSON.stringify(what)).toString('base64url')
  setCookie(event, NAME, text, { ...attributes(), maxAge: KEPT_SECONDS })
}

/** What was kept, once; undefined where it is not what we put there. */
export function takeKept(event: H3Event): Kept | undefined {
  const text = getCookie(event, NAME)
  deleteCookie(event, NAME, attributes())
  if (!text) return undefined
  try {
    return kept.safeParse(JSON.parse(Buffer.from(text, 'base64url').toString('utf8'))).data
  } catch {
    return undefined
  }
}

/** Sends the browser on. */
export function sendOn(event: H3Event, to: string): string {
  setResponseStatus(event, 302)
  setResponseHeader(event, 'location', to)
  return ''
}

/** @throws Refused where there is none */
export function mustSignOn(): { signOn: SignOn; back: URL } {
  const signOn = theSignOn()
  if (!signOn) throw new Refused(404, 'noSignOn', 'One signs in here with a password of Ridgeway.')
  return { signOn, back: new URL('/sign-on/back', theSettings().origin) }
}
