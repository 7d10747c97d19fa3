import { holdParams } from '#shared/offices/requests'
import { inTransaction } from '#server/db/connect'
import { endpoint } from '#server/http/endpoint'
import { liftHold } from '#server/features/offices/holds'
import { campusNow } from '#server/gateways/clock'

export default endpoint('DELETE /api/holds/:hold', { params: holdParams }, ({ db, who, params }) =>
  inTransaction(db, async (tx) => liftHold(tx, who, params.hold, await campusNow(tx)))
)
