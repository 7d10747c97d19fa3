import { webhookParams } from '#shared/connections/requests'
import { transactionEndpoint } from '#server/http/endpoint'
import { theWebhooks } from '#server/http/thisServer'
import { tryWebhook } from '#server/features/connections/webhooks'

/** Tells a webhook that it is tried out. */
export default transactionEndpoint(
  'POST /api/connections/webhooks/:webhook/test',
  { params: webhookParams },
  (tx, _, { params }) => tryWebhook(tx, Date.now(), params.webhook),
  () => theWebhooks().begin()
)
