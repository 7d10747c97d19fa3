import { openingBody, openingParams } from '#shared/offices/requests'
import { inTransaction } from '#server/db/connect'
import { currentShelf, endpoint } from '#server/http/endpoint'
import { moveOpening } from '#server/features/offices/openings'
import { campusNow } from '#server/gateways/clock'

/** Moves an opening that is to come. */
export default endpoint(
  'POST /api/openings/:opening',
  { params: openingParams, body: openingBody },
  async ({ db, who, params, body }) => {
    const { zone } = await currentShelf()
    return inTransaction(db, async (tx) =>
      moveOpening(tx, who, params.opening, body.opens, { now: await campusNow(tx), zone })
    )
  }
)
