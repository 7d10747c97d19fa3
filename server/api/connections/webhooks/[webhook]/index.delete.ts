import { webhookParams } from '#shared/connections/requests'
import { transactionEndpoint } from '#server/http/endpoint'
import { endWebhook } from '#server/features/connections/webhooks'

/** Ends a webhook: it is told nothing any more, what waits included. */
export default transactionEndpoint(
  'DELETE /api/connections/webhooks/:webhook',
  { params: webhookParams },
  (tx, at, { params }) => endWebhook(tx, { ...at, machineNow: Date.now() }, params.webhook)
)
