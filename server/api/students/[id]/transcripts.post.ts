import { transcriptBody } from '#shared/record/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { askForTranscript } from '#server/features/record/transcripts'

/** Asks for a transcript to be sent, now or with the grades of a term. */
export default changeEndpoint(
  'POST /api/students/:id/transcripts',
  { params: studentParams, body: transcriptBody },
  async (tx, doing, { body }) => askForTranscript(tx, doing, body, await currentCatalogContext())
)
