import { newTermBody } from '#shared/offices/terms'
import { termEndpoint } from '#server/http/endpoint'
import { makeTerm } from '#server/features/terms/newTerm'

/** A term by itself, with dates and rules as is usual until they are changed. */
export default termEndpoint('POST /api/terms/new', { body: newTermBody }, async (tx, at, { body }) => {
  await makeTerm(tx, at.who, body, at)
  return { term: body.code }
})
