/**
 * Signing in by the institution's own sign-on: OpenID Connect with a code and PKCE (OpenID Connect Core 1.0, RFC 7636).
 * What it says of somebody is read by the names that the configuration gives.
 */
import * as client from 'openid-client'
import { theSettings, type SignOnSettings } from '#server/settings'

/** What a browser keeps while it is at the sign-on. */
export interface SignOnKept {
  state: string
  nonce: string
  verifier: string
}

/** Whom the sign-on speaks of. */
export interface SignedOn {
  /** The name to sign in with. */
  signIn: string
  name: string | null
  mail: string | null
  groups: readonly string[]
}

export interface SignOn {
  /** Where a browser goes, and what it keeps until it comes back. */
  begin: (back: URL) => Promise<{ to: URL; kept: SignOnKept }>
  /** Whom it came back as. @throws an error of any kind where it is not what was begun */
  finish: (at: URL, kept: SignOnKept) => Promise<SignedOn>
}

const ANSWERS_SECONDS = 10

class OpenIdSignOn implements SignOn {
  #found: Promise<client.Configuration> | undefined

  constructor(private readonly settings: SignOnSettings) {}

  async begin(back: URL) {
    const verifier = client.randomPKCECodeVerifier()
    const kept = { state: client.randomState(), nonce: client.randomNonce(), verifier }
    const to = client.buildAuthorizationUrl(await this.#configuration(), {
      redirect_uri: back.href,
      scope: this.settings.scope,
      code_challenge: await client.calculatePKCECodeChallenge(verifier),
      code_challenge_method: 'S256',
      state: kept.state,
      nonce: kept.nonce
    })
    return { to, kept }
  }

  async finish(at: URL, { state, nonce, verifier }: SignOnKept): Promise<SignedOn> {
    const configuration = await this.#configuration()
    const tokens = await client.authorizationCodeGrant(configuration, at, {
      pkceCodeVerifier: verifier,
      expectedState: state,
      expectedNonce: nonce,
      idTokenExpected: true
    })
    const told = tokens.claims()!
    // Some say more of a person only when they are asked again.
    const more = configuration.serverMetadata().userinfo_endpoint
      ? await client.fetchUserInfo(configuration, tokens.access_token, told.sub)
      : {}
    return this.#read({ ...more, ...told })
  }

  #read(claims: Readonly<Record<string, unknown>>): SignedOn {
    const text = (name: string) => (typeof claims[name] === 'string' && claims[name] ? claims[name] : null)
    const signIn = text(this.settings.nameClaim)
    if (!signIn) throw new Error(`the sign-on says no ${this.settings.nameClaim}`)
    const groups = [claims[this.settings.groupsClaim] ?? []].flat().filter((one) => typeof one === 'string')
    return { signIn, name: text('name'), mail: text('email'), groups }
  }

  #configuration(): Promise<client.Configuration> {
    const { issuer, client: id, secret } = this.settings
    this.#found ??= client
      .discovery(issuer, id, secret, undefined, {
        timeout: ANSWERS_SECONDS,
        // Without https on this machine alone: the settings see to it.
        ...(issuer.protocol === 'http:' && { execute: [client.allowInsecureRequests] })
      })
      .catch((error: unknown) => {
        this.#found = undefined
        throw error
      })
    return this.#found
  }
}

let signOn: SignOn | undefined

/** That of the configuration; undefined where there is none. */
export function theSignOn(): SignOn | undefined {
  const settings = theSettings().signOn
  return settings && (signOn ??= new OpenIdSignOn(settings))
}
