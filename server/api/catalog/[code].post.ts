import { courseParams } from '#shared/catalog/requests'
import { changedCourseBody } from '#shared/catalog/writingRequests'
import { changeCourse } from '#server/features/catalog/writing'
import { termEndpoint } from '#server/http/endpoint'

/** Writes a course anew, from now on. */
export default termEndpoint(
  'POST /api/catalog/:code',
  { params: courseParams, body: changedCourseBody },
  (tx, at, { params, body }) => changeCourse(tx, at, params.code, body)
)
