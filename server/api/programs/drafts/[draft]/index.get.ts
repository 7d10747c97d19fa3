import { draftParams } from '#shared/degree/draftRequests'
import { readDraft } from '#server/features/degree/programDrafts'
import { logAlone } from '#server/db/log'
import { endpoint } from '#server/http/endpoint'

/** A draft, with those who follow its program. */
export default endpoint(
  'GET /api/programs/drafts/:draft',
  { params: draftParams },
  async ({ db, who, params }) => {
    const draft = await readDraft(db, params.draft)
    const after = { found: draft.followers.length }
    await logAlone(db, { account: who.id, student: null, action: 'people.read', after })
    return draft
  }
)
