import { holdKindBody, holdKindParams } from '#shared/offices/requests'
import { inTransaction } from '#server/db/connect'
import { endpoint } from '#server/http/endpoint'
import { changeHoldKind } from '#server/features/offices/holdKinds'
import { campusNow } from '#server/gateways/clock'

/** Changes a kind of hold; holds that stand stay as they were placed. */
export default endpoint(
  'POST /api/hold-kinds/:kind',
  { params: holdKindParams, body: holdKindBody },
  ({ db, who, params, body }) =>
    inTransaction(db, async (tx) => changeHoldKind(tx, who, params.kind, body, await campusNow(tx)))
)
