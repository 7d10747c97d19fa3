import { listBody } from '#shared/catalog/writingRequests'
import { makeList } from '#server/features/catalog/lists'
import { termEndpoint } from '#server/http/endpoint'

/** A course list of a catalog year. */
export default termEndpoint('POST /api/catalog/lists', { body: listBody }, (tx, at, { body }) =>
  makeList(tx, at, body)
)
