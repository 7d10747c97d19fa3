import { cancelBody, sectionParams } from '#shared/sections/requests'
import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { cancelSection } from '#server/features/registration/sectionChanges'

/** Cancels a section and takes everybody out of it. */
export default endpoint(
  'POST /api/sections/:section/cancel',
  { params: sectionParams, body: cancelBody },
  async ({ db, who, params, body }) => {
    await cancelSection(db, who, params.section, body.reason, await currentCatalogContext())
    return {}
  }
)
