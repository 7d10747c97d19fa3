import { exceptionBody, studentParams } from '#wire/bodies'
import { changeEndpoint, currentShelf } from '../../../../endpoint'
import { grantException } from '../../../../services/degree/exceptions'

export default changeEndpoint(
  'POST /api/students/:id/exceptions',
  { params: studentParams, body: exceptionBody },
  async (tx, { who, student, now }, { body }) =>
    grantException(tx, who, student, body, { now, shelf: await currentShelf() }),
  { quiet: true }
)
