import { writtenCourse } from '#shared/catalog/writingRequests'
import { makeCourse } from '#server/features/catalog/writing'
import { termEndpoint } from '#server/http/endpoint'

/** A new course. */
export default termEndpoint('POST /api/catalog', { body: writtenCourse }, (tx, at, { body }) =>
  makeCourse(tx, at, body)
)
