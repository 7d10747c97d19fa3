import { guidanceParams } from '#shared/catalog/guidanceRequests'
import { termEndpoint } from '#server/http/endpoint'
import { dropGuidance } from '#server/features/catalog/guidance'

/** Takes a text of guidance away. */
export default termEndpoint(
  'DELETE /api/guidance/:guidance',
  { params: guidanceParams },
  (tx, { who, now }, { params }) => dropGuidance(tx, who, params.guidance, now)
)
