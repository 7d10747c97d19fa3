import { transcriptParams } from '#shared/record/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { withdrawTranscript } from '#server/features/record/transcripts'

/** Takes a transcript back that waits to be sent. */
export default changeEndpoint(
  'DELETE /api/students/:id/transcripts/:transcript',
  { params: transcriptParams },
  (tx, doing, { params }) => withdrawTranscript(tx, doing, params.transcript)
)
