import { graduationParams } from '#shared/record/requests'
import { inTransaction } from '#server/db/connect'
import { currentShelf, endpoint } from '#server/http/endpoint'
import { awardDegree } from '#server/features/degree/graduation'
import { campusNow } from '#server/gateways/clock'

export default endpoint(
  'POST /api/graduations/:graduation/award',
  { params: graduationParams },
  async ({ db, who, params }) => {
    const shelf = await currentShelf()
    return inTransaction(db, async (tx) =>
      awardDegree(tx, who, params.graduation, { shelf, now: await campusNow(tx) })
    )
  }
)
