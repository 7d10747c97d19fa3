import { fallbacksBody } from '#shared/registration/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { writeFallbacks } from '#server/features/registration/fallbacks'

/** Sets what a line of the run sheet falls back to, and with which line it goes. */
export default changeEndpoint(
  'POST /api/students/:id/fallbacks',
  { params: studentParams, body: fallbacksBody },
  (tx, at, { body }) => writeFallbacks(tx, at, body)
)
