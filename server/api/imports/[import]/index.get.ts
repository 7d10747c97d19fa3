import { importParams, importQuery } from '#shared/oneRoster/requests'
import { readImport } from '#server/features/files/imports'
import { endpoint } from '#server/http/endpoint'

/** What a set would change, or has changed. */
export default endpoint(
  'GET /api/imports/:import',
  { params: importParams, query: importQuery },
  ({ db, params, query }) => readImport(db, params.import, query.page)
)
