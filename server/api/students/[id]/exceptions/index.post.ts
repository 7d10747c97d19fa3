import { exceptionBody } from '#shared/degree/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { grantException } from '#server/features/degree/exceptions'

/** Grants a waiver or a substitution. */
export default changeEndpoint(
  'POST /api/students/:id/exceptions',
  { params: studentParams, body: exceptionBody },
  async (tx, { who, student, now }, { body }) =>
    grantException(tx, who, student, body, { now, catalogContext: await currentCatalogContext() })
)
