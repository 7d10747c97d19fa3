import { holdKindBody } from '#shared/offices/requests'
import { officeEndpoint } from '#server/http/endpoint'
import { makeHoldKind } from '#server/features/offices/holdKinds'

/** A new kind of hold. */
export default officeEndpoint('POST /api/hold-kinds', { body: holdKindBody }, (tx, { who, now }, { body }) =>
  makeHoldKind(tx, who, body, now)
)
