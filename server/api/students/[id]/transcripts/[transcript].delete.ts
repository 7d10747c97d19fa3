import { transcriptParams } from '#shared/record/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { withdrawTranscript } from '#server/features/record/transcripts'

export default changeEndpoint(
  'DELETE /api/students/:id/transcripts/:transcript',
  { params: transcriptParams },
  (tx, doing, { params }) => withdrawTranscript(tx, doing, params.transcript)
)
