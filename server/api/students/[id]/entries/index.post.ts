import { entryBody } from '#shared/record/entries'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { enter } from '#server/features/record/entries'

/** The registrar enters something on the record. */
export default changeEndpoint(
  'POST /api/students/:id/entries',
  { params: studentParams, body: entryBody },
  (tx, at, { body }) => enter(tx, at, body)
)
