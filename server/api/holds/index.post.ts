import { holdsBody } from '#shared/offices/requests'
import { officeEndpoint } from '#server/http/endpoint'
import { placeHolds } from '#server/features/offices/holds'

/** Places a hold of one kind on one student or several. */
export default officeEndpoint('POST /api/holds', { body: holdsBody }, (tx, { who, now }, { body }) =>
  placeHolds(tx, who, body, now)
)
