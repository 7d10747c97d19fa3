import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { logAlone } from '#server/db/log'
import { readTaught } from '#server/features/sections/teaching'
import { campusNow } from '#server/gateways/clock'
import { campusDate } from '#shared/when'

/** The sections of somebody who teaches, or of a department, with who is in them and in line. */
export default endpoint('GET /api/teaching', {}, async ({ db, who }) => {
  const { zone } = await currentCatalogContext()
  const found = await readTaught(db, who, campusDate(await campusNow(db), zone))
  const after = { sections: found.map(({ section }) => section.code) }
  await logAlone(db, { account: who.id, student: null, action: 'classList.read', after })
  return found
})
