/** The cookie that holds the key of a session, and what a request says of its browser. */
import type { Database } from '#server/db/connect'
import { endSession, keptFor, openSession, sessionOf } from '#server/features/accounts/sessions'
import { needsSecondStep } from '#server/features/accounts/secondStep'
import type { SignedIn, Who } from '#shared/accounts/responses'
import Bowser from 'bowser'
import { deleteCookie, getCookie, getRequestHeader, setCookie, type H3Event } from 'h3'
import { theNews } from '#server/http/thisServer'
import { theSettings } from '#server/settings'

/** Behind https the name says that the cookie is of this host alone (RFC 6265bis). */
const cookieName = () => (theSettings().isHttps ? '__Host-ridgeway' : 'ridgeway')
const attributes = () =>
  ({ httpOnly: true, sameSite: 'strict', secure: theSettings().isHttps, path: '/' }) as const

export const keyOf = (event: H3Event): string | undefined => getCookie(event, cookieName())

function keepKey(event: H3Event, key: string, seconds: number): void {
  setCookie(event, cookieName(), key, { ...attributes(), maxAge: seconds })
}

/** Signs this browser in: a session of its own, whose key it holds, whatever it held before. */
export async function beginSession(event: H3Event, db: Database, { id, role }: Who): Promise<void> {
  const before = keyOf(event)
  const session = before && (await sessionOf(db, before))
  if (session) await endSession(db, session.who.id, session.id)
  keepKey(event, await openSession(db, id, browserOf(event)), keptFor(role))
}

/** Who has signed in, as the browser is told. */
export const signedInAs = async (db: Database, who: Who): Promise<SignedIn> => ({
  ...who,
  needsSecondStep: await needsSecondStep(db, who),
  news: await theNews().head()
})

export function dropKey(event: H3Event): void {
  deleteCookie(event, cookieName(), attributes())
}

/** `Firefox on Linux`, for people to know their browsers by. */
function browserOf(event: H3Event): string {
  const { browser, os } = Bowser.parse(getRequestHeader(event, 'user-agent') || 'unknown')
  const name = browser.name || 'A program'
  return `${name}${os.name ? ` on ${os.name}` : ''}`.slice(0, 80)
}

/** Where a request comes from: of the addresses that proxies added, the one that the first of ours saw. */
export function addressOf(event: H3Event): string {
  const { proxies } = theSettings()
  const seen = (getRequestHeader(event, 'x-forwarded-for') ?? '').split(',').map((one) => one.trim())
  const forwarded = proxies > 0 ? seen.at(-proxies) : undefined
  return forwarded || event.node.req.socket.remoteAddress || 'unknown'
}
