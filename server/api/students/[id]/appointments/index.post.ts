import { appointmentBody } from '#shared/appointments/requests'
import { studentParams } from '#shared/requests'
import { makeAppointment } from '#server/features/appointments/appointments'
import { changeEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'

/** Books a slot, as the student, or invites to one, as the advisor. */
export default changeEndpoint(
  'POST /api/students/:id/appointments',
  { params: studentParams, body: appointmentBody },
  async (tx, doing, { body, relation }) =>
    makeAppointment(tx, { ...doing, relation, catalogContext: await currentCatalogContext() }, body)
)
