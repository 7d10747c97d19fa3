import { applyBody, importParams } from '#shared/oneRoster/requests'
import { applyImport } from '#server/features/files/imports'
import { setUpEndpoint } from '#server/http/endpoint'

/** Takes over what a set brings, all of it or nothing. */
export default setUpEndpoint(
  'POST /api/imports/:import/apply',
  { params: importParams, body: applyBody },
  async (tx, at, { params, body }) => {
    await applyImport(tx, at, params.import, body.leaveOut)
    return {}
  }
)
