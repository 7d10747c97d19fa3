import { holdKindParams } from '#shared/offices/requests'
import { inTransaction } from '#server/db/connect'
import { endpoint } from '#server/http/endpoint'
import { dropHoldKind } from '#server/features/offices/holdKinds'
import { campusNow } from '#server/gateways/clock'

/** A kind of hold is not placed any more; holds that stand stay. */
export default endpoint('DELETE /api/hold-kinds/:kind', { params: holdKindParams }, ({ db, who, params }) =>
  inTransaction(db, async (tx) => dropHoldKind(tx, who, params.kind, await campusNow(tx)))
)
