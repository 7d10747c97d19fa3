import { newSectionBody, offeredParams } from '#shared/sections/requests'
import { officeEndpoint } from '#server/http/endpoint'
import { forgetKept } from '#server/http/kept'
import { makeSection } from '#server/features/sections/newSection'

/** Adds a section that is like no other. */
export default officeEndpoint(
  'POST /api/terms/:code/courses/:course/sections',
  { params: offeredParams, body: newSectionBody },
  async (tx, { who, ...at }, { params: { code: term, course }, body }) => ({
    term,
    section: await makeSection(tx, who, { term, course }, body, at)
  }),
  ({ term, section }, { db }) => {
    forgetKept(db, `offer ${term}`)
    return { section }
  }
)
