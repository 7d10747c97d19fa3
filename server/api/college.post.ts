import { collegeBody } from '#shared/offices/college'
import { writeCollege } from '#server/features/offices/college'
import { setUpEndpoint } from '#server/http/endpoint'

/** Writes a part of what the college itself is. */
export default setUpEndpoint('POST /api/college', { body: collegeBody }, (tx, at, { body }) =>
  writeCollege(tx, at, body)
)
