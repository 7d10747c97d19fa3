import { rulesBody, sectionParams } from '#shared/sections/requests'
import { inTransaction } from '#server/db/connect'
import { currentShelf, endpoint } from '#server/http/endpoint'
import { forgetKept } from '#server/http/kept'
import { serveAfter } from '#server/features/registration/serving'
import { changeRules } from '#server/features/sections/rules'
import { campusNow } from '#server/gateways/clock'

/** Changes what holds of a section; seats that are not kept any more go to those in line first. */
export default endpoint(
  'POST /api/sections/:section/rules',
  { params: sectionParams, body: rulesBody },
  async ({ db, who, params, body }) => {
    const shelf = await currentShelf()
    const term = await inTransaction(db, async (tx) =>
      changeRules(tx, who, params.section, body, { shelf, now: await campusNow(tx) })
    )
    forgetKept(db, `offer ${term}`)
    await serveAfter(db, shelf)
    return {}
  }
)
