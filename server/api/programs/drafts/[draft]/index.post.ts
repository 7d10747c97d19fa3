import { draftBody, draftParams } from '#shared/degree/draftRequests'
import { saveDraft } from '#server/features/degree/programDrafts'
import { officeEndpoint } from '#server/http/endpoint'

/** Keeps the text of a draft as it is now. */
export default officeEndpoint(
  'POST /api/programs/drafts/:draft',
  { params: draftParams, body: draftBody },
  (tx, at, { params, body }) => saveDraft(tx, at, params.draft, body)
)
