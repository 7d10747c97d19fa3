import { seatsBody, sectionParams } from '#shared/sections/requests'
import { officeEndpoint } from '#server/http/endpoint'
import { serveAfter } from '#server/features/registration/serving'
import { setSeats } from '#server/features/sections/offering'

/** Gives a section more seats, or fewer; those in line are served. */
export default officeEndpoint(
  'POST /api/sections/:section/seats',
  { params: sectionParams, body: seatsBody },
  (tx, { who, ...at }, { params, body }) => setSeats(tx, who, params.section, body.seats, at),
  async (_, { db, catalogContext }) => {
    await serveAfter(db, catalogContext)
    return {}
  }
)
