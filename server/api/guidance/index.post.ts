import { guidanceBody } from '#shared/catalog/guidanceRequests'
import { termEndpoint } from '#server/http/endpoint'
import { makeGuidance } from '#server/features/catalog/guidance'

/** A new text of guidance. */
export default termEndpoint('POST /api/guidance', { body: guidanceBody }, (tx, { who, now }, { body }) =>
  makeGuidance(tx, who, body, now)
)
