import { addSectionBody, sectionParams } from '#shared/sections/requests'
import { officeEndpoint } from '#server/http/endpoint'
import { forgetKept } from '#server/http/kept'
import { addSection } from '#server/features/sections/offering'

/** Adds a section like this one, at other hours. */
export default officeEndpoint(
  'POST /api/sections/:section/like',
  { params: sectionParams, body: addSectionBody },
  (tx, { who, ...at }, { params, body }) => addSection(tx, who, params.section, body, at),
  ({ code, term }, { db }) => {
    forgetKept(db, `offer ${term}`)
    return { section: code }
  }
)
