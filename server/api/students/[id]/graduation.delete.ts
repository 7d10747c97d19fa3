import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { withdrawApplication } from '#server/features/degree/graduation'

/** Takes an application to graduate back. */
export default changeEndpoint(
  'DELETE /api/students/:id/graduation',
  { params: studentParams },
  withdrawApplication
)
