import { deliveryParams } from '#shared/connections/requests'
import { transactionEndpoint } from '#server/http/endpoint'
import { theWebhooks } from '#server/http/thisServer'
import { tellAgain } from '#server/features/connections/webhooks'

/** Tells again what was given up. */
export default transactionEndpoint(
  'POST /api/connections/deliveries/:delivery',
  { params: deliveryParams },
  (tx, _, { params }) => tellAgain(tx, Date.now(), params.delivery),
  () => theWebhooks().begin()
)
