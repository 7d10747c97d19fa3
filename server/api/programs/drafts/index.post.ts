import { newDraftBody } from '#shared/degree/draftRequests'
import { makeDraft } from '#server/features/degree/programDrafts'
import { officeEndpoint } from '#server/http/endpoint'

/** Begins a draft: the next version of a program, or a new program. */
export default officeEndpoint('POST /api/programs/drafts', { body: newDraftBody }, (tx, at, { body }) =>
  makeDraft(tx, at, body)
)
