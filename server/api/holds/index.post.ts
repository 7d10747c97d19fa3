import { holdsBody } from '#shared/offices/requests'
import { inTransaction } from '#server/db/connect'
import { endpoint } from '#server/http/endpoint'
import { placeHolds } from '#server/features/offices/holds'
import { campusNow } from '#server/gateways/clock'

export default endpoint('POST /api/holds', { body: holdsBody }, ({ db, who, body }) =>
  inTransaction(db, async (tx) => placeHolds(tx, who, body, await campusNow(tx)))
)
