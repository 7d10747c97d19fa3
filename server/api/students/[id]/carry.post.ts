import { carryBody } from '#shared/route/requests'
import { studentParams } from '#shared/requests'
import { changeEndpoint } from '#server/http/endpoint'
import { writeCarry } from '#server/features/route/load'

/** Sets the limits of what the student takes on in a term. */
export default changeEndpoint(
  'POST /api/students/:id/carry',
  { params: studentParams, body: carryBody },
  async (tx, at, { body }) => {
    await writeCarry(tx, at, body)
    return {}
  }
)
