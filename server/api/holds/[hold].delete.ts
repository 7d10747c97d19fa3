import { holdParams } from '#shared/offices/requests'
import { officeEndpoint } from '#server/http/endpoint'
import { liftHold } from '#server/features/offices/holds'

/** Lifts a hold. */
export default officeEndpoint(
  'DELETE /api/holds/:hold',
  { params: holdParams },
  (tx, { who, now }, { params }) => liftHold(tx, who, params.hold, now)
)
