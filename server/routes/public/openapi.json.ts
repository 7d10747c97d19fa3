import { setResponseHeader } from 'h3'
import { theDescription } from '#server/features/publicPages/description'
import { openEndpoint } from '#server/http/endpoint'

/** What can be asked of the server, and what it answers (OpenAPI 3.1). */
export default openEndpoint('GET /public/openapi.json', {}, ({ event }) => {
  setResponseHeader(event, 'cache-control', 'public, max-age=3600')
  return theDescription()
})
