import { milestoneParams } from '#shared/record/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { noteMilestone } from '#server/features/degree/milestones'

/** Takes a noted milestone back. */
export default changeEndpoint(
  'DELETE /api/students/:id/milestones/:condition',
  { params: milestoneParams },
  (tx, doing, { params }) => noteMilestone(tx, doing, params.condition, false)
)
