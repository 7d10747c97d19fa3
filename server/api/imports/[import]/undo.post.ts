import { importParams } from '#shared/oneRoster/requests'
import { undoImport } from '#server/features/files/imports'
import { setUpEndpoint } from '#server/http/endpoint'

/** Takes back what a set has brought, all of it or nothing. */
export default setUpEndpoint(
  'POST /api/imports/:import/undo',
  { params: importParams },
  async (tx, at, { params }) => {
    await undoImport(tx, at, params.import)
    return {}
  }
)
