/**
 * A stand-in for the sign-on of an institution: an OpenID Connect provider on loopback whose people are those of the demo.
 * It asks for a name and believes it. `npm start -- --sign-on` serves with it.
 */
import { createServer, type Server } from 'node:http'
import Provider from 'oidc-provider'

export interface StandIn {
  issuer: string
  stop: () => Promise<void>
}
/** What the sign-on says of somebody, by the name that they give. */
export type Claims = (name: string) => Readonly<Record<string, unknown>>

export const STAND_IN_CLIENT = 'ridgeway'
export const STAND_IN_SECRET = 'known to both on this machine alone'

/** @param back where the application is led back to */
export async function startSignOn(port: number, back: string, claims: Claims = () => ({})): Promise<StandIn> {
  const issuer = `http://127.0.0.1:${port}`
  const provider = new Provider(issuer, {
    clients: [{ client_id: STAND_IN_CLIENT, client_secret: STAND_IN_SECRET, redirect_uris: [back] }],
    claims: { openid: ['sub'], profile: ['name', 'preferred_username', 'groups'], email: ['email'] },
    pkce: { required: () => true },
    cookies: { keys: ['of this machine alone'] },
    ttl: { Session: 3600, Grant: 3600, Interaction: 600, AccessToken: 600, IdToken: 600 },
    findAccount: (_, sub) => ({
      accountId: sub,
      claims: () => ({ sub, preferred_username: sub, ...claims(sub) })
    })
  })
  const server: Server = createServer(provider.callback())
  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve))
  return {
    issuer,
    stop: () =>
      new Promise((resolve) => {
        server.close(() => resolve())
        server.closeAllConnections()
      })
  }
}
