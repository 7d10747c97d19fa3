import { entryBody } from '#shared/record/entries'
import { studentParams } from '#shared/requests'
import { studentEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { lookAtEntry } from '#server/features/record/entries'
import { campusNow } from '#server/gateways/clock'

/** What an entry would make of the degree; nothing is entered. */
export default studentEndpoint(
  'POST /api/students/:id/entries/effect',
  { params: studentParams, body: entryBody },
  async ({ db, who, student, body }) => {
    const catalogContext = await currentCatalogContext()
    return lookAtEntry(
      db,
      { who, student, now: await campusNow(db), zone: catalogContext.zone },
      body,
      catalogContext
    )
  }
)
