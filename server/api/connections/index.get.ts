import { endpoint } from '#server/http/endpoint'
import { readTokens } from '#server/features/connections/tokens'
import { readWebhooks } from '#server/features/connections/webhooks'
import { hostsToTell } from '#server/gateways/webhooks'
import type { Connections } from '#shared/connections/responses'

/** Other systems: tokens with which they ask, webhooks that tell them, and what each was told last. */
export default endpoint('GET /api/connections', {}, async ({ db }): Promise<Connections> => ({
  tokens: await readTokens(db, Date.now()),
  webhooks: await readWebhooks(db),
  hosts: hostsToTell()
}))
