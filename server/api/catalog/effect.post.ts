import { courseEffectBody } from '#shared/catalog/writingRequests'
import { logAlone } from '#server/db/log'
import { effectOfCourse } from '#server/features/catalog/writing'
import { campusNow } from '#server/gateways/clock'
import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'

/** What a course as it is written would make of the degrees of some students; nothing is kept. */
export default endpoint('POST /api/catalog/effect', { body: courseEffectBody }, async ({ db, who, body }) => {
  const found = await effectOfCourse(db, body, {
    catalogContext: await currentCatalogContext(),
    now: await campusNow(db)
  })
  const after = { found: found.students.length }
  await logAlone(db, { account: who.id, student: null, action: 'people.read', after })
  return found
})
