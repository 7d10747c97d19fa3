import { newSectionBody, offeredParams } from '#shared/sections/requests'
import { inTransaction } from '#server/db/connect'
import { currentShelf, endpoint } from '#server/http/endpoint'
import { forgetKept } from '#server/http/kept'
import { makeSection } from '#server/features/sections/newSection'
import { campusNow } from '#server/gateways/clock'

/** Adds a section that is like no other. */
export default endpoint(
  'POST /api/terms/:code/courses/:course/sections',
  { params: offeredParams, body: newSectionBody },
  async ({ db, who, params: { code: term, course }, body }) => {
    const shelf = await currentShelf()
    const section = await inTransaction(db, async (tx) =>
      makeSection(tx, who, { term, course }, body, { shelf, now: await campusNow(tx) })
    )
    forgetKept(db, `offer ${term}`)
    return { section }
  }
)
