import { milestoneParams } from '#shared/record/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { noteMilestone } from '#server/features/degree/milestones'

/** Notes that a milestone of a program was reached. */
export default changeEndpoint(
  'POST /api/students/:id/milestones/:condition',
  { params: milestoneParams },
  (tx, doing, { params }) => noteMilestone(tx, doing, params.condition, true)
)
