import { guidanceBody, guidanceParams } from '#shared/catalog/guidanceRequests'
import { termEndpoint } from '#server/http/endpoint'
import { changeGuidance } from '#server/features/catalog/guidance'

/** Changes a text of guidance. */
export default termEndpoint(
  'POST /api/guidance/:guidance',
  { params: guidanceParams, body: guidanceBody },
  (tx, { who, now }, { params, body }) => changeGuidance(tx, who, params.guidance, body, now)
)
