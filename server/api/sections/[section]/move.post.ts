import { moveBody, sectionParams } from '#shared/sections/requests'
import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { moveSection } from '#server/features/registration/sectionMoves'

/** Moves a section to other hours. */
export default endpoint(
  'POST /api/sections/:section/move',
  { params: sectionParams, body: moveBody },
  async ({ db, who, params, body }) => {
    await moveSection(db, who, params.section, body, await currentCatalogContext())
    return {}
  }
)
