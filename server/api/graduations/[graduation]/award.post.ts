import { graduationParams } from '#shared/record/requests'
import { officeEndpoint } from '#server/http/endpoint'
import { awardDegree } from '#server/features/degree/graduation'

/** Awards a degree, which closes the record. */
export default officeEndpoint(
  'POST /api/graduations/:graduation/award',
  { params: graduationParams },
  (tx, { who, ...at }, { params }) => awardDegree(tx, who, params.graduation, at)
)
