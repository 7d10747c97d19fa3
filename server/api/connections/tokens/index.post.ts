import { tokenBody } from '#shared/connections/requests'
import { transactionEndpoint } from '#server/http/endpoint'
import { makeToken } from '#server/features/connections/tokens'

/** Makes a token; its key is told once. */
export default transactionEndpoint('POST /api/connections/tokens', { body: tokenBody }, (tx, at, { body }) =>
  makeToken(tx, { ...at, machineNow: Date.now() }, body)
)
