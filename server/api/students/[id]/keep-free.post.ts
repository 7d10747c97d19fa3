import { keepFreeBody } from '#shared/week/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { writeKeepFree } from '#server/features/week/habits'

/** Sets the hours that are to stay free of classes, all of them. */
export default changeEndpoint(
  'POST /api/students/:id/keep-free',
  { params: studentParams, body: keepFreeBody },
  (tx, at, { body }) => writeKeepFree(tx, at, body.hours, body.before)
)
