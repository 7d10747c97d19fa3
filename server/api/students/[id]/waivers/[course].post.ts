import { studentCourseParams } from '#shared/requests'
import { waiverBody } from '#shared/advising/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { askWaiver } from '#server/features/advising/waivers'

/** The student asks that the prerequisite of a course be waived. */
export default changeEndpoint(
  'POST /api/students/:id/waivers/:course',
  { params: studentCourseParams, body: waiverBody },
  async (tx, at, { params, body }) => {
    await askWaiver(tx, at, params.course, body.reason)
    return {}
  }
)
