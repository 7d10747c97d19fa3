import { newDraftBody } from '#shared/degree/draftRequests'
import { makeDraft } from '#server/features/degree/programDrafts'
import { officeEndpoint } from '#server/http/endpoint'

export default officeEndpoint('POST /api/programs/drafts', { body: newDraftBody }, (tx, at, { body }) =>
  makeDraft(tx, at, body)
)
