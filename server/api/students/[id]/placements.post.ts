import { placementBody } from '#shared/offices/placingRequests'
import { studentParams } from '#shared/requests'
import { studentEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { place } from '#server/features/offices/placing'
import { campusNow } from '#server/gateways/clock'

/**
 * Places a student in sections, by the same decision as a run of their own, and answers with the receipt; with the same
 * key, of the same placing.
 */
export default studentEndpoint(
  'POST /api/students/:id/placements',
  { params: studentParams, body: placementBody, key: 'may' },
  async ({ db, who, student, body, key }) =>
    place(
      db,
      who,
      student,
      { ...body, key },
      { catalogContext: await currentCatalogContext(), now: await campusNow(db) }
    )
)
