/**
 * Telling another system over the network, signed as the Standard Webhooks specification has it. Only hosts that the
 * configuration names are told (`RIDGEWAY_WEBHOOKS`): an address that somebody typed reaches nothing else.
 */
import { randomBytes } from 'node:crypto'
import { Webhook } from 'standardwebhooks'
import { theSettings } from '#server/settings'

export interface Told {
  address: string
  secret: string
  /** The same each time it is told: whoever hears it twice knows it. */
  reference: string
  body: string
  /** The machine's time. */
  at: number
}

export interface WebhookSender {
  /** The status of the answer. @throws where there was none */
  tell(told: Told): Promise<number>
}

const PATIENCE_MS = 15_000
const SECRET_BYTES = 32
/** A browser's own names for the machine it runs on, to which a connection needs no encryption (W3C Secure Contexts). */
const LOOPBACK = ['localhost', '127.0.0.1', '[::1]']

export const newSecret = (): string => `whsec_${randomBytes(SECRET_BYTES).toString('base64')}`

/** The headers that go with a body. */
export function signed({ secret, reference, body, at }: Omit<Told, 'address'>): Record<string, string> {
  const signature = new Webhook(secret).sign(reference, new Date(at), body)
  return {
    'content-type': 'application/json',
    'webhook-id': reference,
    'webhook-timestamp': String(Math.floor(at / 1000)),
    'webhook-signature': signature
  }
}

/** Hosts that may be told; in the demo, those of this machine. */
export function hostsToTell(): readonly string[] {
  const { webhooks, demo } = theSettings()
  return webhooks ?? (demo ? LOOPBACK : [])
}

/** Why an address may not be told, as the end of a sentence; undefined where it may. */
export function whyNotTold(address: string, hosts = hostsToTell()): string | undefined {
  const { protocol, host, hostname } = new URL(address)
  if (!hosts.includes(hostname) && !hosts.includes(host))
    return hosts.length
      ? `has to be of a host that the configuration of this server names: ${hosts.join(', ')}`
      : 'can be of no host yet: the configuration of this server names none (RIDGEWAY_WEBHOOKS)'
  if (protocol === 'http:' && !LOOPBACK.includes(hostname)) return 'has to begin with https://'
  return undefined
}

export const theWebhookSender: WebhookSender = {
  async tell(told) {
    const refused = whyNotTold(told.address)
    if (refused) throw new Error(`the address ${refused}`)
    const answer = await fetch(told.address, {
      ...{ method: 'POST', headers: signed(told), body: told.body },
      // Where it would lead was named by nobody here.
      redirect: 'manual',
      signal: AbortSignal.timeout(PATIENCE_MS)
    })
    await answer.body?.cancel()
    return answer.status
  }
}
