import { draftParams, draftPublicationBody } from '#shared/degree/draftRequests'
import { publishDraft } from '#server/features/degree/programPublishing'
import { termEndpoint } from '#server/http/endpoint'

/** Makes a version of a draft, for good. */
export default termEndpoint(
  'POST /api/programs/drafts/:draft/publication',
  { params: draftParams, body: draftPublicationBody },
  (tx, at, { params, body }) => publishDraft(tx, at, params.draft, body.version)
)
