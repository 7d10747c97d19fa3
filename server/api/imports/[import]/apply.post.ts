import { applyBody, importParams } from '#shared/oneRoster/requests'
import { applyImport } from '#server/features/files/imports'
import { setUpEndpoint } from '#server/http/endpoint'

/** Takes over what a set brings, without what is left out: all of it or nothing. Says how many lines that were. */
export default setUpEndpoint(
  'POST /api/imports/:import/apply',
  { params: importParams, body: applyBody },
  (tx, at, { params, body }) => applyImport(tx, at, params.import, body)
)
