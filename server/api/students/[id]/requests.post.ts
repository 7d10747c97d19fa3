import { studentParams } from '#shared/requests'
import { requestBody } from '#shared/advising/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { askFor } from '#server/features/advising/requests'

/** The student asks for a permission, a waiver or a substitution. */
export default changeEndpoint(
  'POST /api/students/:id/requests',
  { params: studentParams, body: requestBody },
  async (tx, doing, { body }) => askFor(tx, doing, body, await currentCatalogContext())
)
