import { markBody } from '#shared/catalog/requests'
import { studentCourseParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { bookmarkCourse } from '#server/features/catalog/bookmarks'

/** Stars a course, notes something on it, or says that it was looked at. Only the student's own. */
export default changeEndpoint(
  'POST /api/students/:id/courses/:course',
  { params: studentCourseParams, body: markBody },
  async (tx, at, { params, body }) => {
    await bookmarkCourse(tx, at, params.course, body)
    return {}
  }
)
