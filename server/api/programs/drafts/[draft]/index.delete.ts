import { draftParams } from '#shared/degree/draftRequests'
import { dropDraft } from '#server/features/degree/programDrafts'
import { officeEndpoint } from '#server/http/endpoint'

/** Takes a draft away. */
export default officeEndpoint(
  'DELETE /api/programs/drafts/:draft',
  { params: draftParams },
  async (tx, at, { params }) => {
    await dropDraft(tx, at, params.draft)
    return {}
  }
)
