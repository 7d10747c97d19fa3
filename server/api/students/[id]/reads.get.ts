import { studentParams } from '#shared/requests'
import { readsOf } from '#server/features/record/reads'
import { studentEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'

/** Who has read the record, when and what of it; for the student. */
export default studentEndpoint(
  'GET /api/students/:id/reads',
  { params: studentParams },
  async ({ db, student }) => readsOf(db, student, (await currentCatalogContext()).zone)
)
