import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { readDesk } from '#server/features/advising/desk'
import { logAlone } from '#server/db/log'
import { campusNow } from '#server/gateways/clock'

/** The students of an advisor, with what each needs. */
export default endpoint('GET /api/desk', {}, async ({ db, who }) => {
  const now = await campusNow(db)
  const desk = await readDesk(db, who, await currentCatalogContext(), now)
  const after = { students: desk.rows.map((row) => row.id) }
  await logAlone(db, { account: who.id, student: null, action: 'desk.read', after })
  return desk
})
