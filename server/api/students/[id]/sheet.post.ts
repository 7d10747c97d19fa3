import { preparedBody } from '#shared/registration/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { writePrepared } from '#server/features/registration/prepared'

/** Prepares the run sheet of a term: its order, what is left out or dropped, and how it is run. */
export default changeEndpoint(
  'POST /api/students/:id/sheet',
  { params: studentParams, body: preparedBody },
  (tx, at, { body }) => writePrepared(tx, at, body)
)
