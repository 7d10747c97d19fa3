import { holdKindParams } from '#shared/offices/requests'
import { officeEndpoint } from '#server/http/endpoint'
import { dropHoldKind } from '#server/features/offices/holdKinds'

/** A kind of hold is not placed any more; holds that stand stay. */
export default officeEndpoint(
  'DELETE /api/hold-kinds/:kind',
  { params: holdKindParams },
  (tx, { who, now }, { params }) => dropHoldKind(tx, who, params.kind, now)
)
