import { offeredParams } from '#shared/sections/requests'
import { endpoint } from '#server/http/endpoint'
import { readOffered } from '#server/features/sections/offering'

/** The sections of a course in a term, as those who plan the offer see them. */
export default endpoint(
  'GET /api/terms/:code/courses/:course',
  { params: offeredParams },
  ({ db, who, params }) => readOffered(db, who, { term: params.code, course: params.course })
)
