import { addSectionBody, sectionParams } from '#shared/sections/requests'
import { inTransaction } from '#server/db/connect'
import { currentShelf, endpoint } from '#server/http/endpoint'
import { forgetKept } from '#server/http/kept'
import { addSection } from '#server/features/sections/offering'
import { campusNow } from '#server/gateways/clock'

/** Adds a section like this one, at other hours. */
export default endpoint(
  'POST /api/sections/:section/like',
  { params: sectionParams, body: addSectionBody },
  async ({ db, who, params, body }) => {
    const shelf = await currentShelf()
    const { code, term } = await inTransaction(db, async (tx) =>
      addSection(tx, who, params.section, body, { shelf, now: await campusNow(tx) })
    )
    forgetKept(db, `offer ${term}`)
    return { section: code }
  }
)
