import { graduationBody } from '#shared/record/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { applyToGraduate } from '#server/features/degree/graduation'

/** Applies to graduate. */
export default changeEndpoint(
  'POST /api/students/:id/graduation',
  { params: studentParams, body: graduationBody },
  async (tx, doing, { body }) => applyToGraduate(tx, doing, body.term, await currentCatalogContext())
)
