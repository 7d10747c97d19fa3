import { holdKindBody, holdKindParams } from '#shared/offices/requests'
import { officeEndpoint } from '#server/http/endpoint'
import { changeHoldKind } from '#server/features/offices/holdKinds'

/** Changes a kind of hold; holds that stand stay as they were placed. */
export default officeEndpoint(
  'POST /api/hold-kinds/:kind',
  { params: holdKindParams, body: holdKindBody },
  (tx, { who, now }, { params, body }) => changeHoldKind(tx, who, params.kind, body, now)
)
