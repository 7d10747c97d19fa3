import { appointmentActBody, appointmentParams } from '#shared/appointments/requests'
import { changeAppointment } from '#server/features/appointments/appointments'
import { changeEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'

/** Accepts, declines, moves, cancels or prepares an appointment. */
export default changeEndpoint(
  'POST /api/students/:id/appointments/:appointment',
  { params: appointmentParams, body: appointmentActBody },
  async (tx, doing, { params, body, relation }) =>
    changeAppointment(
      tx,
      { ...doing, relation, catalogContext: await currentCatalogContext() },
      params.appointment,
      body
    )
)
