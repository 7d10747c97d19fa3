import { makeTermsBody } from '#shared/offices/terms'
import { termEndpoint } from '#server/http/endpoint'
import { makeTerms } from '#server/features/terms/plan'

/** Makes terms once more, a year later. */
export default termEndpoint('POST /api/terms', { body: makeTermsBody }, async (tx, at, { body }) => ({
  terms: await makeTerms(tx, at.who, body.like, at)
}))
