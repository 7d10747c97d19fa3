import { openingParams } from '#shared/offices/requests'
import { inTransaction } from '#server/db/connect'
import { currentShelf, endpoint } from '#server/http/endpoint'
import { nudge } from '#server/features/offices/openingFigures'
import { campusNow } from '#server/gateways/clock'

/** Tells those of an opening who are not ready what they lack. */
export default endpoint(
  'POST /api/openings/:opening/nudge',
  { params: openingParams },
  async ({ db, who, params }) => {
    const shelf = await currentShelf()
    return inTransaction(db, async (tx) =>
      nudge(tx, who, params.opening, { shelf, now: await campusNow(tx) })
    )
  }
)
