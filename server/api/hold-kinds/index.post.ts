import { holdKindBody } from '#shared/offices/requests'
import { inTransaction } from '#server/db/connect'
import { endpoint } from '#server/http/endpoint'
import { makeHoldKind } from '#server/features/offices/holdKinds'
import { campusNow } from '#server/gateways/clock'

/** A new kind of hold. */
export default endpoint('POST /api/hold-kinds', { body: holdKindBody }, ({ db, who, body }) =>
  inTransaction(db, async (tx) => makeHoldKind(tx, who, body, await campusNow(tx)))
)
