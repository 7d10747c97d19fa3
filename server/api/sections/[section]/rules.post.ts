import { rulesBody, sectionParams } from '#shared/sections/requests'
import { officeEndpoint } from '#server/http/endpoint'
import { forgetKept } from '#server/http/kept'
import { serveAfter } from '#server/features/registration/serving'
import { changeRules } from '#server/features/sections/rules'

/** Changes what holds of a section; seats that are not kept any more go to those in line first. */
export default officeEndpoint(
  'POST /api/sections/:section/rules',
  { params: sectionParams, body: rulesBody },
  (tx, { who, ...at }, { params, body }) => changeRules(tx, who, params.section, body, at),
  async (term, { db, catalogContext }) => {
    forgetKept(db, `offer ${term}`)
    await serveAfter(db, catalogContext)
    return {}
  }
)
