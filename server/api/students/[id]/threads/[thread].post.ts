import { threadBody, threadParams } from '#shared/advising/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { changeThread } from '#server/features/advising/talk'

/** Settles a thread, opens it again, or keeps up to where it was read. */
export default changeEndpoint(
  'POST /api/students/:id/threads/:thread',
  { params: threadParams, body: threadBody },
  (tx, doing, { params, body, relation }) => changeThread(tx, { ...doing, relation }, params.thread, body)
)
