import { seatsBody, sectionParams } from '#shared/sections/requests'
import { inTransaction } from '#server/db/connect'
import { currentShelf, endpoint } from '#server/http/endpoint'
import { serveAfter } from '#server/features/registration/serving'
import { setSeats } from '#server/features/sections/offering'
import { campusNow } from '#server/gateways/clock'

/** Gives a section more seats, or fewer; those in line are served. */
export default endpoint(
  'POST /api/sections/:section/seats',
  { params: sectionParams, body: seatsBody },
  async ({ db, who, params, body }) => {
    const shelf = await currentShelf()
    await inTransaction(db, async (tx) =>
      setSeats(tx, who, params.section, body.seats, { shelf, now: await campusNow(tx) })
    )
    await serveAfter(db, shelf)
    return {}
  }
)
