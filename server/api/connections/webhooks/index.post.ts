import { webhookBody } from '#shared/connections/requests'
import { inTransaction } from '#server/db/connect'
import { endpoint } from '#server/http/endpoint'
import { theNews, theWebhooks } from '#server/http/thisServer'
import { makeWebhook } from '#server/features/connections/webhooks'
import { campusNow } from '#server/gateways/clock'

/** Makes a webhook, told of what changes from now on; the secret that signs is told once. */
export default endpoint(
  'POST /api/connections/webhooks',
  { body: webhookBody },
  async ({ db, who, body }) => {
    const upTo = await theNews().head()
    const made = await inTransaction(db, async (tx) =>
      makeWebhook(tx, { who, now: await campusNow(tx), machineNow: Date.now() }, body, upTo)
    )
    theWebhooks().begin()
    return made
  }
)
